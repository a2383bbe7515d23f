import type { SearchAnswer, SearchFacetCounts } from '@osier/contract';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { FoundMenu } from './FoundMenu';
import { NarrowMenu } from './NarrowMenu';
import { catalogueWords as wording } from './words';

/** Below the facets of a search: what narrows it further, a file of it, saving it, and the way back to all records. */
export function FoundTools({
  q,
  branch,
  first,
  facetCounts,
  isNarrowed,
  onSearch,
}: {
  q: string;
  branch: string | undefined;
  first: SearchAnswer | undefined;
  facetCounts: SearchFacetCounts | undefined;
  isNarrowed: boolean;
  onSearch: (q: string) => void;
}) {
  const navigate = useNavigate();
  return (
    <>
      {facetCounts ? <NarrowMenu q={q} further={facetCounts.further} onSearch={onSearch} /> : null}
      {first && first.total > 0 ? <FoundMenu branch={branch} isNarrowed={isNarrowed} /> : null}
      {q || first?.within ? (
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
