import { api } from '@osier/contract';
import { call } from '../../api/call';
import type { PiledKind } from '@osier/core/piles';
import { Button, Input } from 'antd';
import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
import { FieldProblem } from '../../parts/FieldProblem';
import { PileOf } from '../../parts/PileOf';
import { useAct } from '../../parts/use-act';

/** Begins an empty pile, to be scanned onto. */
export function BeginPile({ onClose }: { onClose: () => void }) {
  const [name, setName] = useState('');
  const [note, setNote] = useState('');
  const [of, setOf] = useState<PiledKind>('copy');
  const { act, problem } = useAct();
  const navigate = useNavigate();
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const done = await act(() => call(api.piles.make, { body: { name, of, note } }));
    if (!done) return;
    onClose();
    void navigate(`/copies/${done.id}`);
  };
  return (
    <form className="stack" style={{ maxWidth: 460 }} onSubmit={(e) => void save(e)}>
      <h2>A new pile</h2>
      <label>
        Name
        <Input
          autoFocus
          value={name}
          onChange={(e) => setName(e.target.value)}
          status={problem?.field('name') ? 'error' : ''}
        />
        <FieldProblem of={problem} field="name" />
      </label>
      <PileOf value={of} onChange={setOf} />
      <label>
        Note
        <Input
          value={note}
          onChange={(e) => setNote(e.target.value)}
          placeholder="what it is for, until when, for whom…"
        />
        <FieldProblem of={problem} field="note" />
      </label>
      <div className="row">
        <Button type="primary" htmlType="submit">
          Begin the pile
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}
