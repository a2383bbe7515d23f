import { api, type RecordDetail } from '@osier/contract';
import { call } from '../../api/call';
import { callNumberText, type CallNumber } from '@osier/core/callnumbers';
import { Button, Input, Select } from 'antd';
import { useState, type FormEvent } from 'react';
import { refresh } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { FieldProblem } from '../../parts/FieldProblem';
import { CodePicker } from '../../parts/CodePicker';
import { useMyBranch } from '../../shell/my-branch';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';

const SCHEMES = [
  { value: 'dewey', label: 'Dewey' },
  { value: 'lc', label: 'LC' },
  { value: 'nlm', label: 'NLM' },
  { value: 'own', label: 'our own' },
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
  const part = (key: 'prefix' | 'class' | 'item' | 'suffix', label: string) => (
    <label>
      {label}
      <Input
        className="mono"
        value={number[key]}
        status={problem?.field(key) ? 'error' : ''}
        onChange={(e) => setNumber({ ...number, [key]: e.target.value })}
      />
      <FieldProblem of={problem} field={key} />
    </label>
  );
  return (
    <form
      className="shelf-form stack"
      onSubmit={(e) => void save(e)}
      onKeyDown={(e) => e.key === 'Escape' && onClose()}
      aria-label="New holding"
    >
      <div className="form-grid">
        <label>
          Branch
          <CodePicker
            label="Branch"
            list={lists?.branches ?? []}
            value={place.branch}
            status={problem?.field('branch') ? 'error' : ''}
            onChange={(v) => setPlace({ branch: String(v), location: '' })}
          />
          <FieldProblem of={problem} field="branch" />
        </label>
        <label>
          Location
          <CodePicker
            label="Location"
            list={(lists?.locations ?? []).filter((l) => l.branch === place.branch)}
            value={place.location}
            status={problem?.field('location') ? 'error' : ''}
            onChange={(v) => setPlace({ ...place, location: String(v) })}
          />
          <FieldProblem of={problem} field="location" />
        </label>
        <label>
          Scheme
          <Select
            aria-label="Scheme"
            value={number.scheme}
            options={SCHEMES}
            onChange={(scheme) => setNumber({ ...number, scheme })}
          />
        </label>
      </div>
      <div className="row">
        {record.offers.map((o) => (
          <Button type="text" size="small" key={o.from} className="offer" onClick={() => setNumber(o)}>
            <code>{callNumberText(o)}</code> <span className="faded">from {o.from}</span>
          </Button>
        ))}
      </div>
      <div className="form-grid">
        {part('prefix', 'Prefix')}
        {part('class', 'Class')}
        {part('item', 'Cutter')}
        {part('suffix', 'Suffix')}
      </div>
      <div className="row">
        <Button type="primary" htmlType="submit">
          Add the holding {callNumberText(number)}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}
