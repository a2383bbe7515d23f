import { Alert, Button } from 'antd';
import type { ReactNode } from 'react';
import type { Typed } from './use-typed';
import { partWords as wording } from '../words';

/** The end of a form of parts: what was refused, that something is not saved yet, and the acts. It ends the form and covers nothing. */
export function KitBar<T extends object>({
  typed,
  verb,
  more,
  onSend,
  onCancel,
}: {
  typed: Typed<T>;
  verb: string;
  more?: ReactNode;
  onSend: () => void;
  onCancel?: () => void;
}) {
  return (
    <div className="kit-end">
      {typed.refused ? <Alert type="error" title={typed.refused} role="alert" /> : null}
      <div className="kit-bar">
        <Button type="primary" onClick={onSend} loading={typed.isSending}>
          {verb}
        </Button>
        {onCancel ? <Button onClick={onCancel}>{wording.cancel}</Button> : null}
        {typed.isUnsaved ? (
          <>
            <Button onClick={typed.discard}>{wording.discardChanges}</Button>
            <span className="faded">{wording.notSavedYetKeptIn}</span>
          </>
        ) : null}
        {more}
      </div>
    </div>
  );
}
