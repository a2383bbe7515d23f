import { api, type IncomingDetail } from '@osier/contract';
import { groupedBarcode, scannedBarcode } from '@osier/core/barcodes';
import { callNumberText } from '@osier/core/callnumbers';
import { copyName, copyProblems, costText, type ProposedCopy } from '@osier/core/holdings';
import { Button, Checkbox, Input, InputNumber } from 'antd';
import { useState } from 'react';
import { useApi } from '../../api/queries';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { costFault, CostInput } from '../../parts/CostInput';
import { CodePicker } from '../../parts/CodePicker';
import { Mark } from '../../parts/Mark';
import { deliveriesWords as wording } from './words';

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
    return <p className="faded">{done ? wording.noCopies2 : wording.noCopiesTheTitleOnly}</p>;
  const put = (i: number, copy: ProposedCopy | null) => {
    setEditing(null);
    onChange?.(copies.flatMap((c, k) => (k === i ? (copy ? [copy] : []) : [c])));
  };
  return (
    <section aria-label={wording.copies} className="proposed-copies">
      <table className="plain">
        <thead>
          <tr>
            <th>{wording.barcode}</th>
            <th>{wording.place}</th>
            <th>{wording.callNumber}</th>
            <th>{wording.typeCopy}</th>
            <th className="num">{wording.price}</th>
            <th>
              <span className="unseen">{wording.change}</span>
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
          {c.barcode ? (
            groupedBarcode(c.barcode)
          ) : (
            <span className="faded">{wording.nextNumberOfTheRoll}</span>
          )}
        </td>
        <td>
          {c.branch} {c.location}
        </td>
        <td className="mono">{callNumberText(c)}</td>
        <td>
          {c.type}, {copyName(c)}
        </td>
        <td className="num">{costText(c) || '–'}</td>
        <td>
          {onEdit && !editing ? (
            <Button size="small" className="fix" onClick={onEdit}>
              {wording.change}
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
  const [isTold, setTold] = useState(false);
  const { data: setUp } = useApi(api.setup.read);
  if (!setUp) return null;
  const lists = setUp.lists.value;
  const others = copyProblems(copy, lists);
  const isBarcodeTold = copy.problems.some((p) => !others.includes(p));
  const set = (part: Partial<ProposedCopy>) => setC({ ...c, ...part });
  return (
    <form
      className="shelf-form"
      onSubmit={(e) => {
        e.preventDefault();
        setTold(true);
        if (!costFault(c)) onPut({ ...c, barcode: scannedBarcode(c.barcode, setUp.house.value.barcodes) });
      }}
    >
      <KitGrid isDense>
        <KitField label={wording.barcode} help={wording.emptyForTheNextNumber}>
          <Input
            data-takes-codes="scan"
            className="mono"
            value={c.barcode}
            autoFocus
            onFocus={(e) => e.target.select()}
            onChange={(e) => setC(withKept({ ...c, barcode: e.target.value }, false))}
          />
        </KitField>
        <KitField label={wording.branch}>
          <CodePicker
            list={lists.branches}
            value={c.branch}
            onChange={(branch) => set({ branch, ...(branch !== c.branch && { location: '' }) })}
          />
        </KitField>
        <KitField label={wording.location}>
          <CodePicker
            list={lists.locations.filter((l) => l.branch === c.branch)}
            value={c.location}
            onChange={(location) => set({ location })}
          />
        </KitField>
        <KitField label={wording.type}>
          <CodePicker list={lists.types} value={c.type} onChange={(type) => set({ type })} />
        </KitField>
        <KitField label={wording.fund}>
          <CodePicker
            list={lists.funds}
            optional
            placeholder={wording.none}
            value={c.fund}
            onChange={(fund) => set({ fund })}
          />
        </KitField>
        <KitField label={wording.class} width="short">
          <Input className="mono" value={c.class} onChange={(e) => set({ class: e.target.value })} />
        </KitField>
        <KitField label={wording.authorMark} width="short">
          <Input className="mono" value={c.item} onChange={(e) => set({ item: e.target.value })} />
        </KitField>
        <KitField label={wording.partOrVolume} help={wording.emptyForTheWholeTitle}>
          <Input value={c.part ?? ''} maxLength={60} onChange={(e) => set({ part: e.target.value })} />
        </KitField>
        <KitField label={wording.copyNumber} width="short">
          <InputNumber
            min={1}
            max={9999}
            controls={false}
            style={{ width: '100%' }}
            value={c.number}
            onChange={(number) => set({ number: number ?? 1 })}
          />
        </KitField>
        <KitField label={wording.price} width="short" problem={(isTold && costFault(c)) || undefined}>
          <CostInput
            cost={c}
            onChange={({ price, currency }) => {
              const { currency: _, ...rest } = c;
              setC({ ...rest, price, ...(currency && { currency }) });
            }}
          />
        </KitField>
      </KitGrid>
      {isBarcodeTold || c.keepBarcode ? (
        <Checkbox checked={c.keepBarcode ?? false} onChange={(e) => setC(withKept(c, e.target.checked))}>
          {wording.useThisBarcodeAnyway}
        </Checkbox>
      ) : null}
      <div className="kit-bar">
        <Button type="primary" htmlType="submit">
          {wording.saveCopy}
        </Button>
        <Button onClick={onLeave}>{wording.cancel}</Button>
        <Button danger onClick={() => onPut(null)}>
          {wording.doNotAddThisCopy}
        </Button>
      </div>
    </form>
  );
}

/** The copy with a barcode that is used on purpose, whatever is told of it, or not. */
const withKept = ({ keepBarcode: _, ...copy }: ProposedCopy, keep: boolean): ProposedCopy => ({
  ...copy,
  ...(keep && { keepBarcode: true }),
});
