import { api, type SavedSearchRow } from '@osier/contract';
import type { SavedOf } from '@osier/core/find';
import { Button, Checkbox, Input, Modal } from 'antd';
import { useState, type FormEvent } from 'react';
import { call } from '../../api/call';
import { KitField } from '../form/KitField';
import { useAct } from '../use-act';
import { searchWords as wording } from './words';

/**
 * Saves what is searched for under a name: for oneself or for all, with its number in Today where that is wanted. One that is `saved` already
 * is changed, its words or query too.
 */
export function SaveSearch({
  of,
  search,
  saved,
  onClose,
}: {
  of: SavedOf;
  search: Readonly<Record<string, string>>;
  saved?: SavedSearchRow;
  onClose: () => void;
}) {
  const [name, setName] = useState(saved?.name ?? search.q ?? '');
  const [q, setQ] = useState(search.q ?? '');
  const [isShared, setShared] = useState(saved?.isShared ?? false);
  const [onToday, setOnToday] = useState(saved?.onToday ?? false);
  const { act, problem } = useAct();
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const { q: _, ...beside } = search;
    const parts = q.trim() ? { ...beside, q: q.trim() } : beside;
    const body = { name, of, search: parts, isShared, onToday };
    const done = await act(() =>
      saved
        ? call(api.searches.change, { params: { id: saved.id }, body: { ...body, version: saved.version } })
        : call(api.searches.keep, { body }),
    );
    if (done) onClose();
  };
  const title = saved ? wording.changeSearch(saved.name) : wording.saveSearch;
  return (
    <Modal open onCancel={onClose} footer={null} title={title} width={460} destroyOnHidden>
      <form onSubmit={(e) => void save(e)}>
        <KitField label={wording.name} isRequired problem={problem?.field('name')}>
          <Input autoFocus maxLength={80} value={name} onChange={(e) => setName(e.target.value)} />
        </KitField>
        {saved ? (
          <KitField label={wording.wordsOrQuery} problem={problem?.field('search')}>
            <Input maxLength={500} spellCheck={false} value={q} onChange={(e) => setQ(e.target.value)} />
          </KitField>
        ) : null}
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
