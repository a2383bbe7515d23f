import { api, type StocktakeReport } from '@osier/contract';
import { compareGroups, lossOf, type ComparedGroup, type Loss } from '@osier/core/stocktake';
import { Select } from 'antd';
import { useApi } from '../../api/queries';
import { KitField } from '../../parts/form/KitField';
import { useAddress } from '../../parts/use-address';
import { useStocktakes } from './use-stocktakes';
import { stocktakeWords as wording } from './words';
import { inWords } from '../../parts/format';

/** What is missing here beside what was missing in another stocktake, by location and class. */
export function CompareReports({ id, report }: { id: number; report: StocktakeReport }) {
  const [query, change] = useAddress();
  const others = (useStocktakes().data ?? []).filter((s) => s.id !== id);
  const other = others.find((s) => s.id === Number(query.get('beside')));
  if (others.length === 0) return null;
  return (
    <section className={other ? '' : 'no-print'}>
      <h2>{other ? wording.comparedWith(other.stocktake.name) : wording.compareWith}</h2>
      <div className="no-print report-pick">
        <KitField label={wording.compareWith}>
          <Select
            showSearch
            optionFilterProp="label"
            value={other?.id ?? 0}
            onChange={(chosen) => change({ beside: chosen ? String(chosen) : undefined })}
            options={[
              { value: 0, label: wording.noneCompared },
              ...others.map((s) => ({
                value: s.id,
                label: `${s.stocktake.name}, ${s.stocktake.closedOn || s.stocktake.startedOn}`,
              })),
            ]}
          />
        </KitField>
      </div>
      {other ? <Compared other={other.id} report={report} /> : null}
    </section>
  );
}

function Compared({ other, report }: { other: number; report: StocktakeReport }) {
  const { data: then } = useApi(api.stocktakes.report, { params: { id: other } });
  if (!then) return null;
  const all: ComparedGroup = {
    name: wording.total,
    now: lossOf(report.outcomes),
    then: lossOf(then.outcomes),
  };
  return (
    <>
      <ComparedTable of={wording.location} rows={[...compareGroups(report.locations, then.locations), all]} />
      <ComparedTable of={wording.class_} rows={[...compareGroups(report.classes, then.classes), all]} />
    </>
  );
}

const cells = (loss: Loss | null): readonly string[] =>
  loss === null
    ? [wording.notIn, wording.notIn, wording.notIn]
    : [inWords(loss.looked), inWords(loss.missing), String(loss.rate)];

const HEADS = [
  ...[wording.lookedFor, wording.missingHead, wording.ofHundred],
  ...[wording.lookedForThen, wording.missingThen, wording.ofHundredThen],
];

function ComparedTable({ of, rows }: { of: string; rows: readonly ComparedGroup[] }) {
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>{of}</th>
          {HEADS.map((head) => (
            <th key={head} className="num">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, now, then }, i) => (
          <tr key={name} className={i === rows.length - 1 ? 'total' : ''}>
            <td>{name}</td>
            {[...cells(now), ...cells(then)].map((text, at) => (
              <td key={HEADS[at]} className="num">
                {text}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
