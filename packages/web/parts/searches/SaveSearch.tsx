import { api } from '@osier/contract';
import type { SavedOf } from '@osier/core/find';
import { Button, Checkbox, Input, Modal } from 'antd';
import { useState, type FormEvent } from 'react';
import { call } from '../../api/call';
import { KitField } from '../form/KitField';
import { useAct } from '../use-act';
import { searchWords as wording } from './words';

/** Saves what is searched for under a name: for oneself or for all, with its number in Today where that is wanted. */
export function SaveSearch({
  of,
  search,
  onClose,
}: {
  of: SavedOf;
  search: Record<string, string>;
  onClose: () => void;
}) {
  const [name, setName] = useState(search.q ?? '');
  const [isShared, setShared] = useState(false);
  const [onToday, setOnToday] = useState(false);
  const { act, problem } = useAct();
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const body = { name, of, search, isShared, onToday };
    if (await act(() => call(api.searches.keep, { body }))) onClose();
  };
  return (
    <Modal open onCancel={onClose} footer={null} title={wording.saveSearch} width={460} destroyOnHidden>
      <form onSubmit={(e) => void save(e)}>
        <KitField label={wording.name} isRequired problem={problem?.field('name')}>
          <Input autoFocus maxLength={80} value={name} onChange={(e) => setName(e.target.value)} />
        </KitField>
        <p>
          <Checkbox checked={isShared} onChange={(e) => setShared(e.target.checked)}>
            {wording.shareWithAll}
          </Checkbox>
        </p>
        <p>
          <Checkbox checked={onToday} onChange={(e) => setOnToday(e.target.checked)}>
            {wording.showItsNumberInToday}
          </Checkbox>
        </p>
        <div className="kit-bar">
          <Button type="primary" htmlType="submit">
            {wording.saveSearch}
          </Button>
          <Button onClick={onClose}>{wording.cancel}</Button>
        </div>
      </form>
    </Modal>
  );
}
