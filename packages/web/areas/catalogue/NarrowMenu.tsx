import { FilterOutlined } from '@ant-design/icons';
import { api, type FurtherCounts, type SearchBody } from '@osier/contract';
import { narrowedQuery } from '@osier/core/find';
import { Button, Popover } from 'antd';
import { useState } from 'react';
import { useApi } from '../../api/queries';
import { Facets } from '../../parts/Facets';
import { useSetUp } from '../setup/use-set-up';
import { catalogueWords as wording } from './words';

type Further = FurtherCounts['further'];

/** By what a search can be narrowed further: each choice adds a condition to the query, which is shown and can be edited. */
export function NarrowMenu({
  search,
  onSearch,
}: {
  search: Omit<SearchBody, 'records'>;
  onSearch: (q: string) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const { q, pile, delivery, status, type, suppressed } = search;
  const { data, error } = useApi(
    api.records.further,
    isOpen ? { query: { q, pile, delivery, status, type, suppressed } } : null,
  );
  const lists = useSetUp()?.lists.value;
  const shown = (data?.further ?? []).filter((f) => f.values.length > 0);
  /** A location of several branches may be called otherwise at each. */
  const nameOf = (of: Further[number]['of'], name: string): string => {
    const list = of === 'supplier' ? lists?.suppliers : of === 'location' ? lists?.locations : [];
    const names = (list ?? []).flatMap((e) => (e.code === name ? e.name : []));
    return [...new Set(names)].join(', ') || name;
  };
  const choose =
    ({ index }: Further[number]) =>
    (term: string | undefined) => {
      if (term === undefined) return;
      setOpen(false);
      onSearch(narrowedQuery(q, index, '=', term));
    };
  return (
    <Popover
      trigger="click"
      placement="bottomLeft"
      open={isOpen}
      onOpenChange={setOpen}
      content={
        <div className="narrow-menu">
          {error ? <p role="alert">{error.message}</p> : null}
          {data ? null : <p className="faded">{wording.counting}</p>}
          {data?.covers ? (
            <p className="faded">{wording.countedInTheFirst(data.covers.toLocaleString('en-GB'))}</p>
          ) : null}
          {shown.map((f) => (
            <div key={f.of} className="facet-line">
              <Facets
                most={8}
                label={wording.narrowBy[f.of]}
                facets={f.values.map(({ term, name, n }) => ({
                  value: term,
                  name: nameOf(f.of, name),
                  count: n,
                }))}
                chosen={undefined}
                onChoose={choose(f)}
              />
            </div>
          ))}
        </div>
      }
    >
      <Button size="small" icon={<FilterOutlined />} data-key="s">
        {wording.narrow}
      </Button>
    </Popover>
  );
}
