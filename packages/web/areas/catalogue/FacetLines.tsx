import type { SetUp } from '@osier/contract';
import { codeName } from '@osier/core/format';
import { memo } from 'react';
import { Facets } from '../../parts/Facets';
import { catalogueWords as wording } from './words';

type FacetName = 'language' | 'branch' | 'material' | 'finding';

/** What a search is narrowed by with one press, with counts; one's own branch comes before the others. Opening a record does not draw it anew. */
export const FacetLines = memo(function FacetLines({
  counts,
  branch,
  material,
  language,
  finding,
  mine,
  setUp,
  onChoose,
}: {
  counts: Readonly<Record<FacetName, Readonly<Record<string, number>>>> | undefined;
  mine: string;
  setUp: SetUp | undefined;
  onChoose: (name: FacetName, value: string | undefined) => void;
} & Readonly<Record<FacetName, string | undefined>>) {
  const line = (
    name: FacetName,
    chosen: string | undefined,
    label: string,
    naming: (value: string) => string,
  ) => {
    const all = { ...(chosen && { [chosen]: 0 }), ...counts?.[name] };
    const ordered = name === 'branch' && all[mine] ? { [mine]: all[mine], ...all } : all;
    return (
      <div className="facet-line">
        <Facets
          most={name === 'finding' ? 2 : 3}
          label={label}
          facets={Object.entries(ordered).map(([value, count]) => ({ value, name: naming(value), count }))}
          chosen={chosen}
          onChoose={(value) => onChoose(name, value)}
        />
      </div>
    );
  };
  return (
    <>
      {line(
        'branch',
        branch,
        wording.branch,
        (code) => setUp?.lists.value.branches.find((b) => b.code === code)?.name ?? code,
      )}
      {line('material', material, wording.format, (name) => name)}
      {line('language', language, wording.language, (code) => codeName('languages', code) ?? code)}
      {line(
        'finding',
        finding,
        wording.findingsFacet,
        (rule) => setUp?.checks.find((c) => c.rule === rule)?.title ?? rule,
      )}
    </>
  );
});
