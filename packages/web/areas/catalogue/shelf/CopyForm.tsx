import { api, type BarcodeLook } from '@osier/contract';
import { call } from '../../../api/call';
import { groupedBarcode, scannedBarcode, type BarcodeRule } from '@osier/core/barcodes';
import type { Cost } from '@osier/core/holdings';
import { Button, Checkbox, Input, type InputRef } from 'antd';
import { useCallback, useEffect, useRef, useState, type FormEvent } from 'react';
import { refresh } from '../../../api/queries';
import { problemText, RequestProblem } from '../../../api/request';
import { CodePicker } from '../../../parts/CodePicker';
import { costFault, CostInput } from '../../../parts/CostInput';
import { useFocusInvalid } from '../../../parts/form/focus-invalid';
import { FormControl } from '../../../parts/form/FormControl';
import { KitField, KitGrid } from '../../../parts/form/KitField';
import { fieldsOfCopy, localControl, useLocalFields } from '../../../parts/local-fields';
import { Mark } from '../../../parts/Mark';
import { useTakesScans } from '../../../shell/scan-target';
import { useShell } from '../../../shell/shell-store';
import { useSetUp } from '../../setup/use-set-up';
import { RollCaution } from './RollCaution';
import { shelfWords as wording } from './words';

const NO_RULES: readonly BarcodeRule[] = [];

/** A choice that the next copy is likely to share, kept in this browser. */
function useLast(name: 'type' | 'fund' | 'supplier') {
  const [value, setValue] = useState(() => localStorage.getItem(`osier-last-${name}`) ?? '');
  const choose = (next: string) => {
    localStorage.setItem(`osier-last-${name}`, next);
    setValue(next);
  };
  return [value, choose] as const;
}

/** Adds copies to a holding, one barcode after the other: a scan looks the barcode up, Enter adds the copy, the field waits for the next. */
export function CopyForm({
  holding,
  branch,
  onClose,
}: {
  holding: number;
  /** Where the holding is. */
  branch: string;
  onClose: () => void;
}) {
  const setUp = useSetUp();
  const lists = setUp?.lists.value;
  const rules = setUp?.house.value.barcodes ?? NO_RULES;
  const [barcode, setBarcode] = useState('');
  const [part, setPart] = useState('');
  const [look, setLook] = useState<BarcodeLook | null>(null);
  const [keep, setKeep] = useState(false);
  const [type, setType] = useLast('type');
  const [fund, setFund] = useLast('fund');
  const [supplier, setSupplier] = useLast('supplier');
  const [cost, setCost] = useState<Cost>({ price: null });
  const [locals, setLocals] = useState<Readonly<Record<number, string>>>({});
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const [isPriceTold, setPriceTold] = useState(false);
  const localFields = fieldsOfCopy(useLocalFields(), type, {});
  const local = localFields.flatMap(({ id }) => (locals[id] ? [{ field: id, value: locals[id] }] : []));
  const input = useRef<InputRef>(null);
  const { say, complain } = useShell();
  useEffect(() => input.current?.focus(), []);
  const lookUp = useCallback(
    async (raw: string) => {
      const code = scannedBarcode(raw, rules);
      setBarcode(code);
      setKeep(false);
      setProblem(null);
      setLook(code ? await call(api.copies.barcode, { params: { barcode: code } }) : null);
      input.current?.focus();
    },
    [rules],
  );
  /** The barcode that is right and waits for Enter: another scan does not take its place unseen. */
  const waits = useRef('');
  useTakesScans(
    wording.theNewCopy,
    useCallback(
      (raw: string) => {
        const code = scannedBarcode(raw, rules);
        if (waits.current && waits.current !== code)
          complain(wording.waitsToBeAddedPress(groupedBarcode(waits.current), groupedBarcode(code)));
        else void lookUp(raw);
      },
      [lookUp, complain, rules],
    ),
  );
  const form = useRef<HTMLFormElement>(null);
  useFocusInvalid(form, problem);
  const save = async (event: FormEvent) => {
    event.preventDefault();
    const code = scannedBarcode(barcode, rules);
    if (look?.barcode !== code) return lookUp(barcode);
    setPriceTold(true);
    if (costFault(cost)) return;
    try {
      const done = await call(api.copies.add, {
        body: {
          holding,
          barcode: code,
          part,
          type,
          fund,
          supplier,
          ...cost,
          local,
          keepBarcode: keep,
        },
      });
      say(done.sentence, done.entry);
      setBarcode('');
      setLook(null);
      setKeep(false);
      await refresh();
      input.current?.focus();
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      complain(problemText(e));
    }
  };
  const trouble =
    look?.holder?.sentence ??
    problem?.field('barcode') ??
    look?.problem ??
    look?.withdrawn ??
    look?.spoiled ??
    null;
  const mayUse = look?.problem ?? look?.withdrawn ?? look?.spoiled ?? problem?.isOverrulable;
  useEffect(() => {
    waits.current = look && !trouble ? look.barcode : '';
  });
  return (
    <form
      ref={form}
      className="shelf-form stack"
      onSubmit={(e) => void save(e)}
      onKeyDown={(e) => e.key === 'Escape' && onClose()}
      aria-label={wording.newCopy}
    >
      <KitGrid isDense>
        <KitField label={wording.barcode} isRequired>
          <Input
            data-takes-codes="scan"
            ref={input}
            className="mono"
            value={barcode}
            autoComplete="off"
            status={trouble ? 'error' : ''}
            onChange={(e) => {
              setBarcode(e.target.value);
              setLook(null);
              setProblem(null);
            }}
          />
        </KitField>
        <KitField
          label={wording.partOrVolume}
          help={wording.emptyForTheWholeTitle}
          problem={problem?.field('part')}
        >
          <Input value={part} maxLength={60} onChange={(e) => setPart(e.target.value)} />
        </KitField>
        <KitField label={wording.type} isRequired problem={problem?.field('type')}>
          <CodePicker
            list={lists?.types ?? []}
            value={type}
            onChange={(v) => {
              setType(v);
              setProblem(null);
            }}
          />
        </KitField>
        <KitField label={wording.fund} problem={problem?.field('fund')}>
          <CodePicker
            optional
            placeholder={wording.none}
            list={lists?.funds ?? []}
            value={fund}
            onChange={setFund}
          />
        </KitField>
        <KitField label={wording.supplier} problem={problem?.field('supplier')}>
          <CodePicker
            optional
            placeholder={wording.none}
            list={lists?.suppliers ?? []}
            value={supplier}
            onChange={setSupplier}
          />
        </KitField>
        <KitField label={wording.price} problem={(isPriceTold && costFault(cost)) || problem?.field('price')}>
          <CostInput cost={cost} placeholder={wording.asTheType} onChange={setCost} />
        </KitField>
        {localFields.map(({ id, field }) => (
          <KitField
            key={id}
            label={field.name}
            problem={problem?.field(`local[${local.findIndex((l) => l.field === id)}].value`)}
          >
            <FormControl
              field={{ name: `local-${id}`, label: field.name, ...localControl(field, wording.none) }}
              value={locals[id] ?? ''}
              onChange={(v) => {
                setLocals({ ...locals, [id]: typeof v === 'string' ? v : '' });
                setProblem(null);
              }}
            />
          </KitField>
        ))}
      </KitGrid>
      {trouble ? (
        <p role="alert" className="field-problem">
          <Mark kind="stop" /> {trouble}
          {mayUse && !look?.holder ? (
            <Checkbox className="row" checked={keep} onChange={(e) => setKeep(e.target.checked)}>
              {wording.useThisBarcodeAnyway}
            </Checkbox>
          ) : null}
        </p>
      ) : null}
      {look && !trouble ? (
        <p>
          <Mark kind="clear" /> {wording.theBarcodeIsValidAnd}
        </p>
      ) : null}
      {look && type ? <RollCaution barcode={look.barcode} copy={{ branch, type }} /> : null}
      <div className="kit-bar">
        <Button type="primary" htmlType="submit">
          {look ? wording.addCopy : wording.checkBarcode} <kbd>Enter</kbd>
        </Button>
        <Button onClick={onClose}>
          {wording.close} <kbd>Esc</kbd>
        </Button>
      </div>
    </form>
  );
}
