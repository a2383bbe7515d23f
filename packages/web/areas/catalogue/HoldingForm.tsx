import { api, type RecordDetail } from '@osier/contract';
import { call } from '../../api/call';
import { callNumberText, type CallNumber } from '@osier/core/callnumbers';
import { Button, Input, Select } from 'antd';
import { useRef, useState, type FormEvent } from 'react';
import { refresh } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { CodePicker } from '../../parts/CodePicker';
import { useFocusInvalid } from '../../parts/form/focus-invalid';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { useMyBranch } from '../../shell/my-branch';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { catalogueWords as wording } from './words';

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

/** Adds a holding: branch, location, and a call number offered from the record, cut to house style. */
export function HoldingForm({
  record,
  onClose,
  onMade,
}: {
  record: RecordDetail;
  onClose: () => void;
  onMade: (holding: number) => void;
}) {
  const lists = useSetUp()?.lists.value;
  const offer = record.offers[0];
  const [mine] = useMyBranch();
  const [place, setPlace] = useState(() => {
    const last = lastPlace();
    return mine && mine !== last.branch ? { branch: mine, location: '' } : last;
  });
  const [number, setNumber] = useState<CallNumber>(
    offer ?? { scheme: 'dewey', prefix: '', class: '', item: '', suffix: '' },
  );
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const { say, complain } = useShell();
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const { scheme, prefix, class: cls, item, suffix } = number;
    try {
      const done = await call(api.copies.addHolding, {
        body: {
          record: record.id,
          ...place,
          scheme,
          prefix,
          class: cls,
          item,
          suffix,
        },
      });
      localStorage.setItem(REMEMBERED, JSON.stringify(place));
      say(done.sentence, done.entry);
      await refresh();
      onMade(done.id);
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      complain(problemText(e));
    }
  };
  const form = useRef<HTMLFormElement>(null);
  useFocusInvalid(form, problem);
  const part = (key: 'prefix' | 'class' | 'item' | 'suffix', label: string) => (
    <KitField label={label} isRequired={key === 'class'} problem={problem?.field(key)}>
      <Input
        className="mono"
        value={number[key]}
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
      aria-label={wording.newHolding}
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
        {record.offers.map((o) => (
          <Button size="small" key={o.from} className="offer" onClick={() => setNumber(o)}>
            <code>{callNumberText(o)}</code> <span className="faded">{wording.from(o.from)}</span>
          </Button>
        ))}
      </div>
      <KitGrid isDense>
        {part('prefix', 'Prefix')}
        {part('class', 'Class')}
        {part('item', 'Author mark')}
        {part('suffix', 'Suffix')}
      </KitGrid>
      <div className="kit-bar">
        <Button type="primary" htmlType="submit">
          {wording.addHolding(callNumberText(number))}
        </Button>
        <Button onClick={onClose}>{wording.cancel}</Button>
      </div>
    </form>
  );
}
