import type { SearchAnswer, SearchBody, SearchFacetCounts } from '@osier/contract';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { useSetUp } from '../setup/use-set-up';
import { FoundMenu } from './FoundMenu';
import { NarrowMenu } from './NarrowMenu';
import { theirCopies } from './their-copies';
import { catalogueWords as wording } from './words';

/** Below the facets of a search: what narrows it further, a file of it, saving it, and the way back to all records. */
export function FoundTools({
  search,
  first,
  facetCounts,
  isNarrowed,
  onSearch,
}: {
  search: Omit<SearchBody, 'records'>;
  first: SearchAnswer | undefined;
  facetCounts: SearchFacetCounts | undefined;
  isNarrowed: boolean;
  onSearch: (q: string) => void;
}) {
  const navigate = useNavigate();
  const rules = useSetUp()?.house.value.barcodes;
  const copies = first && first.total > 0 && isNarrowed ? theirCopies(search, first.tookFor, rules) : null;
  return (
    <>
      {first && first.total > 1 && isNarrowed ? <NarrowMenu search={search} onSearch={onSearch} /> : null}
      {first && first.total > 0 ? <FoundMenu branch={search.branch} isNarrowed={isNarrowed} /> : null}
      {copies ? (
        <Button
          size="small"
          data-key="o"
          title={wording.theirCopiesWhy}
          onClick={() => void navigate(copies)}
        >
          {wording.theirCopies}
        </Button>
      ) : null}
      {search.q || first?.within ? (
        <Button size="small" onClick={() => void navigate('/catalogue')}>
          {wording.showAll}
        </Button>
      ) : null}
      {facetCounts?.covers ? (
        <span className="faded">{wording.countedInTheFirst(facetCounts.covers.toLocaleString('en-GB'))}</span>
      ) : null}
    </>
  );
}
