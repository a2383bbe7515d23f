import type { AlikeRow } from '@osier/contract';
import { Button } from 'antd';
import { Link } from 'react-router';
import { useFocusOnShown } from '../../parts/focus-on-shown';
import { Mark } from '../../parts/Mark';
import { useSetUp } from '../setup/use-set-up';
import { catalogueWords as wording } from './words';

/** What one should look at before a record is saved: records that may be the same, errors, and what is lacking. */
export function SaveCheck({
  alike,
  problems,
  onSave,
  onCancel,
}: {
  alike: readonly AlikeRow[];
  problems: readonly string[];
  onSave: () => void;
  onCancel: () => void;
}) {
  const branches = useSetUp()?.lists.value.branches ?? [];
  const note = useFocusOnShown<HTMLDivElement>();
  const nameOf = (code: string) => branches.find((b) => b.code === code)?.name ?? code;
  return (
    <div className="note caution save-check" role="alert" tabIndex={-1} ref={note}>
      <b>{wording.lookAtThisFirst}</b>
      {alike.length ? (
        <>
          <p>{wording.mayBeTheSame(alike.length)}</p>
          <ul>
            {alike.map((a) => (
              <li key={a.record}>
                <Mark
                  kind={a.sure ? 'stop' : 'caution'}
                  name={a.sure ? wording.surelyTheSame : wording.perhapsTheSame}
                />{' '}
                <Link to={`/catalogue/${a.record}`}>{a.title}</Link>{' '}
                {[a.author, a.year].filter(Boolean).join(', ')} · {wording.record2(a.record)} ·{' '}
                {a.copies ? wording.copiesAt(a.copies, a.branches.map(nameOf).join(', ')) : wording.noCopies}
                <div className="faded">{[...a.shared, ...a.doubts].join('; ')}</div>
              </li>
            ))}
          </ul>
          <p className="faded">{wording.attachACopyThere}</p>
        </>
      ) : null}
      {problems.map((p) => (
        <p key={p}>
          <Mark kind="stop" /> {p}
        </p>
      ))}
      <div className="row">
        <Button type="primary" onClick={onSave}>
          {wording.saveAllTheSame}
        </Button>
        <Button onClick={onCancel}>{wording.goOnEditing}</Button>
      </div>
    </div>
  );
}
