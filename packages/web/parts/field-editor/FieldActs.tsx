import { Button } from 'antd';
import type { ReactNode } from 'react';
import { fieldWords as wording } from './words';

/** The buttons that end the editing of a field. */
export const FieldActs = ({
  onSave,
  onCancel,
  onDelete,
  children,
}: {
  onSave: () => void;
  onCancel: () => void;
  onDelete?: (() => void) | undefined;
  children?: ReactNode;
}) => (
  <div className="row field-editor-acts">
    <Button size="small" type="primary" onClick={onSave}>
      {wording.ok} <kbd>Enter</kbd>
    </Button>
    {children}
    <Button size="small" onClick={onCancel}>
      {wording.cancel} <kbd>Esc</kbd>
    </Button>
    {onDelete ? (
      <Button size="small" danger onClick={onDelete}>
        {wording.deleteField}
      </Button>
    ) : null}
  </div>
);
