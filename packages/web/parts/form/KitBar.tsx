import { Alert, Button } from 'antd';
import { useEffect, useRef, type ReactNode } from 'react';
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
  const end = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // The bar stands below the parts of its form: the first that is wrong is shown.
    if (typed.refused)
      end.current?.parentElement?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
  }, [typed.refused]);
  return (
    <div className="kit-end" ref={end}>
      {typed.isOvertaken ? <Alert type="warning" title={wording.savedOtherwise} role="status" /> : null}
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
