import { api, type PileRow } from '@osier/contract';
import { call } from '../../api/call';
import { Button, Input } from 'antd';
import { useState, type FormEvent } from 'react';
import { FieldProblem } from '../../parts/FieldProblem';
import { useAct } from '../../parts/use-act';

/** Changes name and note of a pile. */
export function PileName({ pile, onDone }: { pile: PileRow; onDone: () => void }) {
  const [name, setName] = useState(pile.name);
  const [note, setNote] = useState(pile.note);
  const { act, problem } = useAct();
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const body = { version: pile.version, name, note };
    if (await act(() => call(api.piles.change, { params: { id: pile.id }, body }))) onDone();
  };
  return (
    <form className="shelf-form stack" onSubmit={(e) => void save(e)}>
      <div className="form-grid">
        <label>
          Name
          <Input autoFocus value={name} onChange={(e) => setName(e.target.value)} />
          <FieldProblem of={problem} field="name" />
        </label>
        <label>
          Note
          <Input value={note} onChange={(e) => setNote(e.target.value)} />
          <FieldProblem of={problem} field="note" />
        </label>
      </div>
      <div className="row">
        <Button type="primary" htmlType="submit">
          Save name and note
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </form>
  );
}
