import { api, type RecordDetail } from '@osier/contract';
import { call } from '../../../api/call';
import { callNumberDoubt, callNumberText, offerCallNumbers, type CallNumber } from '@osier/core/callnumbers';
import { Button, Input, Select } from 'antd';
import { useRef, useState, type FormEvent } from 'react';
import { refresh } from '../../../api/queries';
import { problemText, RequestProblem } from '../../../api/request';
import { CodePicker } from '../../../parts/CodePicker';
import { useFocusInvalid } from '../../../parts/form/focus-invalid';
import { KitField, KitGrid } from '../../../parts/form/KitField';
import { useHouse } from '../../../parts/use-house';
import { useMyBranch } from '../../../shell/my-branch';
import { useShell } from '../../../shell/shell-store';
import { useSetUp } from '../../setup/use-set-up';
import { shelfWords as wording } from './words';

const SCHEMES = [
  { value: 'dewey', label: wording.dewey },
  { value: 'lc', label: wording.lc },
  { value: 'nlm', label: wording.nlm },
  { value: 'own', label: wording.ourOwn },
];
const REMEMBERED = 'osier-last-place';
const lastPlace = (): { branch: string; location: string } =>
  JSON.parse(localStorage.getItem(REMEMBERED) ?? '{"branch":"","location":""}') as {
    branch: string;
    location: string;
  };

const EMPTY: CallNumber = { scheme: 'dewey', prefix: '', class: '', item: '', suffix: '' };
/** The place of the last holding, where it is at one's own branch. */
function placeToBegin(mine: string): { branch: string; location: string } {
  const last = lastPlace();
  return !mine || last.branch === mine ? last : { branch: mine, location: '' };
}
type HeldHolding = RecordDetail['holdings'][number];

/** Adds a holding, or changes one: branch, location, and a call number offered from the record, cut to house style. */
export function HoldingForm({
  record,
  held = null,
  onClose,
  onMade,
}: {
  record: RecordDetail;
  /** The holding that is changed; null for a new one. */
  held?: HeldHolding | null;
  onClose: () => void;
  onMade: (holding: number) => void;
}) {
  const lists = useSetUp()?.lists.value;
  const [mine] = useMyBranch();
  const [place, setPlace] = useState(() => held?.holding ?? placeToBegin(mine));
  const [notes, setNotes] = useState({
    note: held?.holding.note ?? '',
    staffNote: held?.holding.staffNote ?? '',
  });
  const house = useHouse();
  const offers = house ? offerCallNumbers(record.marc, house, place) : record.offers;
  // Until something else is typed, a new holding has what the house makes at its place.
  const [typed, setNumber] = useState<CallNumber | null>(held?.holding ?? null);
  const number = typed ?? offers[0] ?? EMPTY;
  const doubt = callNumberDoubt(number);
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const { say, complain } = useShell();
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const { scheme, prefix, class: cls, item, year = '', suffix } = number;
    const { branch, location } = place;
    const body = { branch, location, scheme, prefix, class: cls, item, year, suffix, ...notes };
    try {
      const done = held
        ? await call(api.copies.changeHolding, {
            params: { id: held.id },
            body: { version: held.version, ...body },
          })
        : await call(api.copies.addHolding, { body: { record: record.id, ...body } });
      localStorage.setItem(REMEMBERED, JSON.stringify({ branch, location }));
      say(done.sentence, done.entry);
      await refresh();
      if (held) onClose();
      else if ('id' in done && typeof done.id === 'number') onMade(done.id);
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      complain(problemText(e));
    }
  };
  const form = useRef<HTMLFormElement>(null);
  useFocusInvalid(form, problem);
  const part = (key: 'prefix' | 'class' | 'item' | 'year' | 'suffix', label: string, help?: string) => (
    <KitField label={label} help={help} problem={problem?.field(key)}>
      <Input
        className="mono"
        value={number[key] ?? ''}
        onChange={(e) => setNumber({ ...number, [key]: e.target.value })}
      />
    </KitField>
  );
  return (
    <form
      ref={form}
      className="shelf-form"
      onSubmit={(e) => void save(e)}
      onKeyDown={(e) => e.key === 'Escape' && onClose()}
      aria-label={held ? wording.changeHolding : wording.newHolding}
    >
      <KitGrid isDense>
        <KitField label={wording.branch} isRequired problem={problem?.field('branch')}>
          <CodePicker
            list={lists?.branches ?? []}
            value={place.branch}
            onChange={(branch) => setPlace({ branch, location: '' })}
          />
        </KitField>
        <KitField label={wording.location} isRequired problem={problem?.field('location')}>
          <CodePicker
            list={(lists?.locations ?? []).filter((l) => l.branch === place.branch)}
            value={place.location}
            onChange={(location) => setPlace({ ...place, location })}
          />
        </KitField>
        <KitField label={wording.scheme}>
          <Select
            value={number.scheme}
            options={SCHEMES}
            onChange={(scheme) => setNumber({ ...number, scheme })}
          />
        </KitField>
      </KitGrid>
      <div className="row offers">
        {offers.map((o) => (
          <Button size="small" key={callNumberText(o)} className="offer" onClick={() => setNumber(o)}>
            <code>{callNumberText(o)}</code> <span className="faded">{wording.offered(o.rule, o.from)}</span>
          </Button>
        ))}
      </div>
      <KitGrid isDense>
        {part('prefix', 'Prefix')}
        {part('class', 'Class', doubt ?? undefined)}
        {part('item', 'Author mark')}
        {part('year', wording.year)}
        {part('suffix', 'Suffix')}
        <KitField label={wording.publicNote} problem={problem?.field('note')}>
          <Input value={notes.note} onChange={(e) => setNotes({ ...notes, note: e.target.value })} />
        </KitField>
        <KitField label={wording.staffNote} problem={problem?.field('staffNote')}>
          <Input
            value={notes.staffNote}
            onChange={(e) => setNotes({ ...notes, staffNote: e.target.value })}
          />
        </KitField>
      </KitGrid>
      <div className="kit-bar">
        <Button type="primary" htmlType="submit">
          {held ? wording.saveHolding(callNumberText(number)) : wording.addHolding(callNumberText(number))}
        </Button>
        <Button onClick={onClose}>{wording.cancel}</Button>
      </div>
    </form>
  );
}
