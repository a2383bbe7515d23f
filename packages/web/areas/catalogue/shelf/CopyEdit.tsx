import { api, copyChangeBody, type RecordDetail } from '@osier/contract';
import { scannedBarcode } from '@osier/core/barcodes';
import { COPY_STATUSES, LOAN_RULES, localOf } from '@osier/core/holdings';
import { Button } from 'antd';
import { useState } from 'react';
import { call } from '../../../api/call';
import { refresh } from '../../../api/queries';
import { problemText, RequestProblem } from '../../../api/request';
import { SchemaForm } from '../../../parts/form/SchemaForm';
import {
  fieldsOfCopy,
  localFormFields,
  localInitial,
  localSchemas,
  localsTyped,
  useLocalFields,
} from '../../../parts/local-fields';
import { useDrafts } from '../../../shell/drafts';
import { useShell } from '../../../shell/shell-store';
import { useSetUp } from '../../setup/use-set-up';
import { shelfWords as wording } from './words';

type HeldCopy = RecordDetail['holdings'][number]['copies'][number];

/** Corrects a copy in every part. A barcode that another copy has can be swapped with it: the labels were stuck on each other. */
export function CopyEdit({ held, onClose }: { held: HeldCopy; onClose: () => void }) {
  const setUp = useSetUp();
  const { say, complain } = useShell();
  const [other, setOther] = useState<{
    readonly id: number;
    readonly version: number;
    readonly sentence: string;
  } | null>(null);
  /** A barcode that is not in the library's form is kept when it is sent once more. */
  const [keep, setKeep] = useState('');
  const localFields = useLocalFields();
  if (!setUp) return null;
  const lists = setUp.lists.value;
  const { copy } = held;
  const draft = `copy ${held.id}`;
  const swap = async () => {
    if (!other) return;
    try {
      const done = await call(api.copies.swap, {
        body: { a: { id: held.id, version: held.version }, b: { id: other.id, version: other.version } },
      });
      say(done.sentence, done.entry);
      useDrafts.getState().keepForm(draft, null);
      onClose();
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <div className="shelf-form" aria-label={wording.changeCopy} role="group">
      <SchemaForm
        schema={copyChangeBody.shape(localSchemas(localFields, copy))}
        takesFocus
        isDense
        verb={wording.saveCopy}
        onCancel={onClose}
        draft={{ key: draft, title: wording.changeCopy, path: window.location.pathname, isOfKept: true }}
        initial={{
          ...copy,
          version: held.version,
          part: copy.part ?? '',
          currency: copy.currency ?? '',
          number: copy.number || undefined,
          staffNote: copy.staffNote ?? '',
          loanRule: copy.loanRule ?? 'lends',
          reason: '',
          ...localInitial(localFields, copy),
        }}
        scans={{
          name: wording.theCopy,
          fill: (code) => ({ barcode: scannedBarcode(code, setUp.house.value.barcodes) }),
          next: () => 'barcode',
        }}
        fields={(typed) => [
          { name: 'barcode', label: wording.barcode, isMono: true },
          { name: 'number', label: wording.copyNumber, kind: 'number', min: 1 },
          { name: 'part', label: wording.partOrVolume },
          { name: 'type', label: wording.type, kind: 'code', list: lists.types },
          {
            name: 'status',
            label: wording.status,
            kind: 'choice',
            options: COPY_STATUSES.map((value) => ({ value, label: value })),
          },
          ...(typed.status !== undefined && typed.status !== copy.status
            ? [{ name: 'reason', label: wording.reason }]
            : []),
          {
            name: 'loanRule',
            label: wording.loanRule,
            kind: 'choice',
            options: LOAN_RULES.map((value) => ({ value, label: value })),
          },
          { name: 'price', label: wording.price, kind: 'price', currency: 'currency' },
          { name: 'fund', label: wording.fund, kind: 'code', list: [NONE, ...lists.funds] },
          { name: 'supplier', label: wording.supplier, kind: 'code', list: [NONE, ...lists.suppliers] },
          { name: 'acquired', label: wording.acquired, kind: 'date' },
          { name: 'condition', label: wording.condition },
          { name: 'note', label: wording.publicNote, width: 'wide' },
          { name: 'staffNote', label: wording.staffNote, width: 'wide' },
          ...localFormFields(fieldsOfCopy(localFields, typeOf(typed), copy), wording.none),
        ]}
        onSend={async (typed) => {
          setOther(null);
          const { version, barcode, keepBarcode: _, ...parts } = copyChangeBody.cast(typed);
          const local = localsTyped(typed).filter((l) => l.value !== localOf(copy, l.field));
          try {
            const done = await call(api.copies.change, {
              params: { id: held.id },
              body: {
                version,
                ...parts,
                local,
                barcode,
                keepBarcode: barcode !== undefined && barcode === keep,
              },
            });
            say(done.sentence, done.entry);
            onClose();
            await refresh();
            return true;
          } catch (e) {
            if (barcode && e instanceof RequestProblem && e.isOverrulable) setKeep(barcode);
            else if (barcode && e instanceof RequestProblem && e.field('barcode')) {
              const look = await call(api.copies.barcode, { params: { barcode } });
              if (look.holder && look.holder.copy !== held.id)
                setOther({
                  id: look.holder.copy,
                  version: look.holder.version,
                  sentence: look.holder.sentence,
                });
            }
            throw e;
          }
        }}
      />
      {other ? (
        <div className="note caution row spread" role="alert">
          <span>{other.sentence}</span>
          <Button onClick={() => void swap()}>{wording.swapBarcodes}</Button>
        </div>
      ) : null}
      {keep ? <p className="faded">{wording.sendOnceMoreToKeep}</p> : null}
    </div>
  );
}

const typeOf = ({ type }: Readonly<Record<string, unknown>>): string =>
  typeof type === 'string' ? type : '';

const NONE = { code: '', name: wording.none };
