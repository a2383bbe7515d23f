import { Input } from 'antd';
import { useCallback, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useTakesScans } from '../shell/scan-target';
import './scan-field.css';

/** A field that takes scans one after the other: Enter hands the code on and clears it for the next. Also takes scans from anywhere. */
export function ScanField({
  label,
  name,
  onScan,
  large = false,
  said,
}: {
  label: string;
  name: string;
  /** Codes are handed on one after the other: the next when this is done with the last. */
  onScan: (codes: string[]) => Promise<unknown> | void;
  large?: boolean;
  said?: string;
}) {
  const [text, setText] = useState('');
  const latest = useRef(onScan);
  useEffect(() => {
    latest.current = onScan;
  });
  const turn = useRef<Promise<unknown>>(Promise.resolve());
  const send = useCallback((codes: string[]) => {
    turn.current = turn.current.then(() => latest.current(codes)).catch(() => undefined);
  }, []);
  const hand = (raw: string) => {
    const codes = raw.split(/[\s,;]+/).filter(Boolean);
    if (codes.length) send(codes);
    setText('');
  };
  useTakesScans(
    name,
    useCallback((code: string) => send([code]), [send]),
  );
  const onKey = (event: KeyboardEvent) => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    hand(text);
  };
  return (
    <div className={large ? 'scan-field large' : 'scan-field'}>
      <label>
        {label}
        <Input
          data-takes-codes="scan"
          value={text}
          autoFocus
          autoComplete="off"
          inputMode="numeric"
          onChange={(e) => setText(e.target.value)}
          onKeyDown={onKey}
          onPaste={(e) => {
            const pasted = e.clipboardData.getData('text');
            if (!/\s/.test(pasted.trim())) return;
            e.preventDefault();
            hand(pasted);
          }}
        />
      </label>
      <span role="status" className="faded">
        {said}
      </span>
    </div>
  );
}
