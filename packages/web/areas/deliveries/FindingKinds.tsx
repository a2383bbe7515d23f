import { api } from '@osier/contract';
import { Button } from 'antd';
import { useApi } from '../../api/queries';
import { KIND_OF_SEVERITY, Mark } from '../../parts/Mark';

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
        <Mark kind="clear" /> The checks find nothing in the records that wait.
      </p>
    );
  return (
    <section className="finding-kinds" aria-label="What the checks find">
      <div className="row spread">
        <h2>What the checks find</h2>
        {onFix && safe > 0 ? (
          <Button onClick={() => onFix([])}>Fix all {safe.toLocaleString('en-GB')} safe ones</Button>
        ) : null}
      </div>
      <table className="plain">
        <thead>
          <tr>
            <th>Kind</th>
            <th className="num">Records</th>
            <th className="num">Findings</th>
            <th>Fix</th>
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
                    Fix {k.safe === 1 ? 'the safe one' : `all ${k.safe.toLocaleString('en-GB')} safe ones`}
                  </Button>
                ) : null}
                {k.look > 0 ? (
                  <span className="faded"> {k.look.toLocaleString('en-GB')} to look at</span>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="faded">
        Choose a kind to see its records. A safe fix can be applied unseen; you still see every change before
        it is made.
      </p>
    </section>
  );
}
