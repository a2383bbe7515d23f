import { api } from '@osier/contract';
import { Button } from 'antd';
import { useApi } from '../../api/queries';
import { KIND_OF_SEVERITY, Mark } from '../../parts/Mark';
import { deliveriesWords as wording } from './words';

/** What the checks found in a delivery, by kind: choose one to see its records, or mend all that is safe. */
export function FindingKinds({
  delivery,
  chosen,
  onChoose,
  onFix,
}: {
  delivery: number;
  /** The check whose records the list shows. */
  chosen: string | undefined;
  onChoose: (rule: string | undefined) => void;
  /** Opens the review sheet for the safe fixes of one check, or of all. Absent for those who may not. */
  onFix?: (rules: string[]) => void;
}) {
  const { data: kinds } = useApi(api.deliveries.findings, { params: { id: delivery } });
  if (!kinds) return null;
  const safe = kinds.reduce((n, k) => n + k.safe, 0);
  if (kinds.length === 0)
    return (
      <p>
        <Mark kind="clear" /> {wording.noFindingsInTheWaiting}
      </p>
    );
  return (
    <section className="finding-kinds" aria-label={wording.findingsByKind}>
      <div className="row spread">
        <h2>{wording.findingsByKind}</h2>
        {onFix && safe > 0 ? (
          <Button data-key="f" onClick={() => onFix([])}>
            {wording.fixAllSafeOnes(safe.toLocaleString('en-GB'))}
          </Button>
        ) : null}
      </div>
      <table className="plain">
        <thead>
          <tr>
            <th>{wording.kind}</th>
            <th className="num">{wording.records2}</th>
            <th className="num">{wording.findings2}</th>
            <th>{wording.fix}</th>
          </tr>
        </thead>
        <tbody>
          {kinds.map((k) => (
            <tr key={k.severity + k.rule} className={chosen === k.rule ? 'chosen' : undefined}>
              <td>
                <Mark kind={KIND_OF_SEVERITY[k.severity]} />{' '}
                <Button
                  type="link"
                  size="small"
                  className="plain-link"
                  aria-pressed={chosen === k.rule}
                  onClick={() => onChoose(chosen === k.rule ? undefined : k.rule)}
                >
                  {k.title}
                </Button>
              </td>
              <td className="num">{k.records.toLocaleString('en-GB')}</td>
              <td className="num">{k.findings.toLocaleString('en-GB')}</td>
              <td>
                {onFix && k.safe > 0 ? (
                  <Button size="small" className="fix" onClick={() => onFix([k.rule])}>
                    {wording.fix2(
                      k.safe === 1 ? wording.theSafeOne : wording.allSafeOnes(k.safe.toLocaleString('en-GB')),
                    )}
                  </Button>
                ) : null}
                {k.look > 0 ? (
                  <span className="faded"> {wording.toCheck(k.look.toLocaleString('en-GB'))}</span>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="faded">{wording.chooseAKindToSee}</p>
    </section>
  );
}
