import { api, type IncomingDetail } from '@osier/contract';
import { cleanScan, groupedBarcode } from '@osier/core/barcodes';
import { callNumberText } from '@osier/core/callnumbers';
import { copyName, type ProposedCopy } from '@osier/core/holdings';
import { Button, Input, InputNumber } from 'antd';
import { useState } from 'react';
import { useApi } from '../../api/queries';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { PriceInput } from '../../parts/PriceInput';
import { CodePicker } from '../../parts/CodePicker';
import { Mark } from '../../parts/Mark';

/** The copies that are made with an incoming record, or were; each with what stands in its way, and how to put it right. */
export function ProposedCopies({
  incoming,
  onChange,
}: {
  incoming: IncomingDetail;
  /** Absent when nothing can be changed. */
  onChange?: (copies: ProposedCopy[]) => void;
}) {
  const copies = incoming.proposedCopies;
  const [editing, setEditing] = useState<number | null>(null);
  const done = incoming.state === 'accepted';
  if (copies.length === 0)
    return <p className="faded">{done ? 'No copy was made with it.' : 'No copies: the title only.'}</p>;
  const put = (i: number, copy: ProposedCopy | null) => {
    setEditing(null);
    onChange?.(copies.flatMap((c, k) => (k === i ? (copy ? [copy] : []) : [c])));
  };
  return (
    <section aria-label="Copies" className="proposed-copies">
      <table className="plain">
        <thead>
          <tr>
            <th>Barcode</th>
            <th>Place</th>
            <th>Call number</th>
            <th>Type, copy</th>
            <th className="num">Price</th>
            <th>
              <span className="unseen">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {copies.map((c, i) => (
            <CopyRow
              key={i}
              copy={c}
              editing={editing === i}
              onEdit={onChange ? () => setEditing(i) : undefined}
              onPut={(copy) => put(i, copy)}
              onLeave={() => setEditing(null)}
            />
          ))}
        </tbody>
      </table>
    </section>
  );
}

function CopyRow({
  copy: c,
  editing,
  onEdit,
  onPut,
  onLeave,
}: {
  copy: ProposedCopy;
  editing: boolean;
  onEdit?: () => void;
  onPut: (copy: ProposedCopy | null) => void;
  onLeave: () => void;
}) {
  return (
    <>
      <tr className={c.problems.length ? 'bad' : undefined}>
        <td className="mono">
          {c.barcode ? groupedBarcode(c.barcode) : <span className="faded">next of the roll</span>}
        </td>
        <td>
          {c.branch} {c.location}
        </td>
        <td className="mono">{callNumberText(c)}</td>
        <td>
          {c.type}, {copyName(c)}
        </td>
        <td className="num">{c.price === null ? '–' : (c.price / 100).toFixed(2)}</td>
        <td>
          {onEdit && !editing ? (
            <Button size="small" className="fix" onClick={onEdit}>
              Change
            </Button>
          ) : null}
        </td>
      </tr>
      {[
        ...c.problems.map((p) => ['stop', p] as const),
        ...c.remarks.map((p) => ['information', p] as const),
      ].map(([kind, said]) => (
        <tr key={said}>
          <td colSpan={6} className={kind === 'stop' ? 'copy-problem' : 'faded'}>
            <Mark kind={kind} /> {said}
          </td>
        </tr>
      ))}
      {editing ? (
        <tr>
          <td colSpan={6}>
            <ProposedCopyForm copy={c} onPut={onPut} onLeave={onLeave} />
          </td>
        </tr>
      ) : null}
    </>
  );
}

/** Scan or type the barcode first: that is where the work is; Enter keeps the copy. */
function ProposedCopyForm({
  copy,
  onPut,
  onLeave,
}: {
  copy: ProposedCopy;
  onPut: (copy: ProposedCopy | null) => void;
  onLeave: () => void;
}) {
  const [c, setC] = useState(copy);
  const { data: setUp } = useApi(api.setup.read);
  if (!setUp) return null;
  const lists = setUp.lists.value;
  const set = (part: Partial<ProposedCopy>) => setC({ ...c, ...part });
  return (
    <form
      className="shelf-form"
      onSubmit={(e) => {
        e.preventDefault();
        onPut({ ...c, barcode: cleanScan(c.barcode) });
      }}
    >
      <KitGrid isDense>
        <KitField label="Barcode" help="empty for the next of the roll">
          <Input
            data-takes-codes="scan"
            className="mono"
            value={c.barcode}
            autoFocus
            onFocus={(e) => e.target.select()}
            onChange={(e) => set({ barcode: e.target.value })}
          />
        </KitField>
        <KitField label="Branch">
          <CodePicker
            list={lists.branches}
            value={c.branch}
            onChange={(branch) => set({ branch, ...(branch !== c.branch && { location: '' }) })}
          />
        </KitField>
        <KitField label="Location">
          <CodePicker
            list={lists.locations.filter((l) => l.branch === c.branch)}
            value={c.location}
            onChange={(location) => set({ location })}
          />
        </KitField>
        <KitField label="Type">
          <CodePicker list={lists.types} value={c.type} onChange={(type) => set({ type })} />
        </KitField>
        <KitField label="Fund">
          <CodePicker
            list={lists.funds}
            optional
            placeholder="none"
            value={c.fund}
            onChange={(fund) => set({ fund })}
          />
        </KitField>
        <KitField label="Class" width="short">
          <Input className="mono" value={c.class} onChange={(e) => set({ class: e.target.value })} />
        </KitField>
        <KitField label="Author mark" width="short">
          <Input className="mono" value={c.item} onChange={(e) => set({ item: e.target.value })} />
        </KitField>
        <KitField label="Part or volume" help="empty for the whole title">
          <Input value={c.part ?? ''} maxLength={60} onChange={(e) => set({ part: e.target.value })} />
        </KitField>
        <KitField label="Copy number" width="short">
          <InputNumber
            min={1}
            max={9999}
            controls={false}
            style={{ width: '100%' }}
            value={c.number}
            onChange={(number) => set({ number: number ?? 1 })}
          />
        </KitField>
        <KitField label="Price" width="short">
          <PriceInput value={c.price} onChange={(price) => set({ price })} />
        </KitField>
      </KitGrid>
      <div className="kit-bar">
        <Button type="primary" htmlType="submit">
          Save copy
        </Button>
        <Button onClick={onLeave}>Cancel</Button>
        <Button danger onClick={() => onPut(null)}>
          Do not add this copy
        </Button>
      </div>
    </form>
  );
}
