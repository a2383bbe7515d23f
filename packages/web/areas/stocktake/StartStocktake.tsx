import { api, type StocktakeBody } from '@osier/contract';
import { call } from '../../api/call';
import { Button, Input, Select } from 'antd';
import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
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

const NEW: Omit<StocktakeBody, 'locations' | 'types'> & Record<'locations' | 'types', string[]> = {
  name: '',
  branch: '',
  locations: [],
  types: [],
  scheme: 'dewey',
  from: '',
  to: '',
  seenSince: '',
};
const codesIn = (value: unknown): string[] => (Array.isArray(value) ? value.map(String) : []);

/** Chooses the stretch: branch, locations, call-number range, types. */
export function StartStocktake({ onClose }: { onClose: () => void }) {
  const lists = useSetUp()?.lists.value;
  const [branch] = useMyBranch();
  const [form, setForm] = useState({ ...NEW, branch });
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const { say, complain } = useShell();
  const navigate = useNavigate();
  const set = (change: Partial<typeof form>) => setForm({ ...form, ...change });
  const save = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const done = await call(api.stocktakes.start, { body: form });
      say(done.sentence, done.entry);
      await refresh();
      void navigate(`/stocktake/${done.id}`);
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      complain(problemText(e));
    }
  };
  const trouble = (field: string) => <FieldProblem of={problem} field={field} />;
  return (
    <form className="stack" style={{ maxWidth: 560 }} onSubmit={(e) => void save(e)}>
      <h2>A new stocktake</h2>
      <label>
        Name
        <Input
          value={form.name}
          placeholder="Millrace, textiles"
          status={problem?.field('name') ? 'error' : ''}
          onChange={(e) => set({ name: e.target.value })}
        />
        {trouble('name')}
      </label>
      <div className="form-grid">
        <label>
          Branch
          <CodePicker
            label="Branch"
            list={lists?.branches ?? []}
            value={form.branch}
            status={problem?.field('branch') ? 'error' : ''}
            onChange={(v) => set({ branch: String(v), locations: [] })}
          />
          {trouble('branch')}
        </label>
        <label>
          Locations
          <CodePicker
            label="Locations"
            many
            placeholder="all locations"
            list={(lists?.locations ?? []).filter((l) => l.branch === form.branch)}
            value={form.locations}
            onChange={(v) => set({ locations: codesIn(v) })}
          />
          {trouble('locations')}
        </label>
        <label>
          Types
          <CodePicker
            label="Types"
            many
            placeholder="all types"
            list={lists?.types ?? []}
            value={form.types}
            onChange={(v) => set({ types: codesIn(v) })}
          />
          {trouble('types')}
        </label>
      </div>
      <div className="form-grid">
        <label>
          Scheme
          <Select
            aria-label="Scheme"
            value={form.scheme}
            options={SCHEMES}
            onChange={(scheme) => set({ scheme })}
          />
        </label>
        <label>
          Call number from
          <Input
            className="mono"
            value={form.from}
            placeholder="the beginning"
            onChange={(e) => set({ from: e.target.value })}
          />
        </label>
        <label>
          to, with all that begins so
          <Input
            className="mono"
            value={form.to}
            placeholder="the end"
            onChange={(e) => set({ to: e.target.value })}
          />
        </label>
        <label>
          Seen since counts as found
          <Input type="date" value={form.seenSince} onChange={(e) => set({ seenSince: e.target.value })} />
          {trouble('seenSince')}
        </label>
      </div>
      <div className="row">
        <Button type="primary" htmlType="submit">
          Start the stocktake
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}
