import { Input } from 'antd';
import { useState } from 'react';
import { deliveriesWords as wording } from './words';

/** A note on an incoming record, for oneself or for who comes after; Enter or leaving the field keeps it. */
export function IncomingNote({ note, onKeep }: { note: string; onKeep?: (note: string) => void }) {
  const [text, setText] = useState<string | null>(null);
  if (!onKeep) return note ? <p className="note">{note}</p> : null;
  const keep = () => {
    if (text !== null && text.trim() !== note) onKeep(text.trim());
    setText(null);
  };
  return (
    <Input
      aria-label={wording.note}
      placeholder={wording.noteOnThisRecord}
      maxLength={500}
      value={text ?? note}
      onChange={(e) => setText(e.target.value)}
      onPressEnter={keep}
      onBlur={keep}
    />
  );
}
