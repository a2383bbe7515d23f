import { FileTextOutlined } from '@ant-design/icons';
import { Button, Input, Upload } from 'antd';
import { useCallback, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useTakesScans } from '../shell/scan-target';
import { codesOfFile } from './codes-of-file';
import './scan-field.css';
import { partWords as wording } from './words';

/** Codes that are handed on at once from a file. */
const AT_ONCE = 2000;

/** A field that takes scans one after the other: Enter hands the code on and clears it for the next. Also takes scans from anywhere. */
export function ScanField({
  label,
  name,
  onScan,
  large = false,
  said,
  takesFiles = false,
}: {
  label: string;
  name: string;
  /** Codes are handed on one after the other: the next when this is done with the last. */
  onScan: (codes: string[]) => Promise<unknown> | void;
  large?: boolean;
  said?: string;
  /** Codes can be read from a file: one a line, or a column of a table. */
  takesFiles?: boolean;
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
  const [trouble, setTrouble] = useState('');
  const readFile = async (file: Blob) => {
    const codes = await codesOfFile(file);
    setTrouble(codes.length ? '' : wording.noCodesInTheFile);
    for (let at = 0; at < codes.length; at += AT_ONCE) send(codes.slice(at, at + AT_ONCE));
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
      {takesFiles ? (
        <Upload
          accept=".txt,.csv,.tsv,text/plain,text/csv"
          showUploadList={false}
          beforeUpload={(file) => {
            void readFile(file);
            return false;
          }}
        >
          <Button size="small" icon={<FileTextOutlined />}>
            {wording.codesFromAFile}
          </Button>
        </Upload>
      ) : null}
      <span role="status" className="faded">
        {trouble || said}
      </span>
    </div>
  );
}
