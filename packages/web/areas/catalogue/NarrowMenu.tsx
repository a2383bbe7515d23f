import { FilterOutlined } from '@ant-design/icons';
import type { SearchFacetCounts } from '@osier/contract';
import { narrowedQuery } from '@osier/core/find';
import { Button, Popover } from 'antd';
import { useState } from 'react';
import { Facets } from '../../parts/Facets';
import { useSetUp } from '../setup/use-set-up';
import { catalogueWords as wording } from './words';

type Further = SearchFacetCounts['further'];

/** By what a search can be narrowed further: each choice adds a condition to the query, which is shown and can be edited. */
export function NarrowMenu({
  q,
  further,
  onSearch,
}: {
  q: string;
  further: Further;
  onSearch: (q: string) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const suppliers = useSetUp()?.lists.value.suppliers ?? [];
  const shown = further.filter((f) => f.values.length > 0);
  if (shown.length === 0) return null;
  const nameOf = (of: Further[number]['of'], name: string) =>
    of === 'supplier' ? (suppliers.find((s) => s.code === name)?.name ?? name) : name;
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
