import type { AlikeRow } from '@osier/contract';
import { Button } from 'antd';
import { Link, useNavigate } from 'react-router';
import { useFocusOnShown } from '../../parts/focus-on-shown';
import { Mark } from '../../parts/Mark';
import { useSetUp } from '../setup/use-set-up';
import { neighboursWords as wording } from './words';

/** What of the catalogue is just what is looked for, or may be: a copy is attached to it instead. */
export function OwnRecords({
  own,
  isAsked,
  onAsk,
}: {
  own: readonly AlikeRow[];
  isAsked: boolean;
  onAsk: () => void;
}) {
  const navigate = useNavigate();
  const branches = useSetUp()?.lists.value.branches ?? [];
  const nameOf = (code: string) => branches.find((b) => b.code === code)?.name ?? code;
  const isSure = own.some((o) => o.sure);
  const note = useFocusOnShown<HTMLElement>();
  return (
    <section
      className={isSure ? 'note caution own-records' : 'own-records'}
      aria-label={isSure ? wording.alreadyHere : wording.perhapsHere}
      tabIndex={-1}
      ref={isSure ? note : undefined}
    >
      <h3>{isSure ? wording.alreadyHere : wording.perhapsHere}</h3>
      <ul>
        {own.map((o) => (
          <li key={o.record}>
            {o.sure ? <Mark kind="stop" name={wording.alreadyHere} /> : null}{' '}
            <Link to={`/catalogue/${o.record}`}>
              <bdi>{o.title}</bdi>
            </Link>{' '}
            <span className="faded">
              {[o.author, o.year].filter(Boolean).join(', ')} ·{' '}
              {o.copies ? wording.copiesAt(o.copies, o.branches.map(nameOf).join(', ')) : wording.noCopies}
            </span>
          </li>
        ))}
      </ul>
      {isSure ? (
        <div className="row">
          <Button
            type="primary"
            data-key="a"
            onClick={() => void navigate(`/catalogue/${own[0]!.record}?copies=1`)}
          >
            {wording.attachACopy} <kbd>a</kbd>
          </Button>
          {isAsked ? null : (
            <Button data-key="f" onClick={onAsk}>
              {wording.askAllTheSame} <kbd>f</kbd>
            </Button>
          )}
        </div>
      ) : null}
    </section>
  );
}
