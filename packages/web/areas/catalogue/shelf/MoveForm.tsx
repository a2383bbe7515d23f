import { api, type RecordDetail } from '@osier/contract';
import { Button, Input, Radio } from 'antd';
import { useCallback, useState } from 'react';
import { call } from '../../../api/call';
import { problemText } from '../../../api/request';
import { useTakesScans } from '../../../shell/scan-target';
import { useShell } from '../../../shell/shell-store';
import { useSetUp } from '../../setup/use-set-up';
import { shelfWords as wording } from './words';

/** What moves: a copy to a holding, or a holding to a record. */
export type Moving = { readonly of: 'copy'; readonly from: number } | { readonly of: 'holding' };

/** Says where a copy or a holding goes: the record by its number, an ISBN or any barcode of it, and for a copy one of its holdings. */
export function MoveForm({
  moving,
  record,
  onMove,
  onClose,
}: {
  moving: Moving;
  record: RecordDetail;
  onMove: (to: number) => Promise<void>;
  onClose: () => void;
}) {
  const lists = useSetUp()?.lists.value;
  const { complain } = useShell();
  const [text, setText] = useState('');
  const [found, setFound] = useState<RecordDetail | null>(moving.of === 'copy' ? record : null);
  const [to, setTo] = useState<number | null>(null);
  const name = (list: 'branches' | 'locations', code: string) =>
    lists?.[list].find((l) => l.code === code)?.name ?? code;
  const find = useCallback(
    async (q: string) => {
      try {
        const named = await call(api.records.lookUp, {
          query: { q: /^\d{1,9}$/.test(q.trim()) ? `r${q.trim()}` : q },
        });
        if (named.as !== 'record') return complain(named.said);
        setFound(await call(api.records.read, { params: { id: named.id } }));
        setTo(null);
      } catch (e) {
        complain(problemText(e));
      }
    },
    [complain],
  );
  useTakesScans(
    wording.whereItGoes,
    useCallback((code: string) => void find(code), [find]),
  );
  const holdings = moving.of === 'copy' ? (found?.holdings.filter((h) => h.id !== moving.from) ?? []) : [];
  return (
    <form
      className="shelf-form stack"
      aria-label={wording.whereItGoes}
      onSubmit={(e) => {
        e.preventDefault();
        void find(text);
      }}
      onKeyDown={(e) => e.key === 'Escape' && onClose()}
    >
      <div className="row">
        <Input
          autoFocus
          style={{ maxWidth: 320 }}
          data-takes-codes="scan"
          aria-label={wording.recordThatItGoesTo}
          placeholder={wording.recordNumberIsbnOrBarcode}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Button htmlType="submit" disabled={!text.trim()}>
          {wording.findRecord}
        </Button>
      </div>
      {found ? (
        <p>
          <b>{found.brief.title}</b> <span className="faded">{wording.record2(found.id)}</span>
        </p>
      ) : null}
      {moving.of === 'copy' && found ? (
        holdings.length ? (
          <Radio.Group
            vertical
            aria-label={wording.holdings}
            value={to}
            onChange={(e) => setTo(Number(e.target.value))}
            options={holdings.map((h) => ({
              value: h.id,
              label: `${h.callNumber} · ${name('branches', h.holding.branch)}, ${name('locations', h.holding.location)}`,
            }))}
          />
        ) : (
          <p className="faded">{wording.noOtherHolding}</p>
        )
      ) : null}
      <div className="kit-bar">
        <Button
          type="primary"
          disabled={moving.of === 'copy' ? to === null : found === null || found.id === record.id}
          onClick={() => void onMove(moving.of === 'copy' ? (to ?? 0) : (found?.id ?? 0))}
        >
          {moving.of === 'copy' ? wording.moveCopy : wording.moveHolding}
        </Button>
        <Button onClick={onClose}>{wording.cancel}</Button>
      </div>
    </form>
  );
}
