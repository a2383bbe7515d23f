import { Button } from 'antd';
import type { Finding } from '@osier/core/checks';
import type { Field } from '@osier/core/marc';
import { memo } from 'react';
import { FieldBody } from './FieldBody';
import { KIND_OF_SEVERITY, Mark } from '../Mark';
import { fieldWords as wording } from './words';

/** One field of a record as it is read, with what was found in it. What is pressed in it is heard by the view around all rows. */
export const FieldRow = memo(function FieldRow({
  at,
  field,
  leader,
  language,
  findings,
  isEditable,
  isSelected,
  isActive,
  isInHoldings,
}: {
  at: number;
  field: Field;
  leader: string;
  language: string;
  findings: readonly Finding[];
  isEditable: boolean;
  isSelected: boolean;
  /** It has the focus or the pointer: only then its button is made, since a record may have hundreds of fields. */
  isActive: boolean;
  isInHoldings: boolean;
}) {
  return (
    <div
      className={`field-row${field.tag === '880' ? ' partner' : ''}${isSelected ? ' selected' : ''}`}
      tabIndex={0}
      data-at={at}
      aria-selected={isSelected || undefined}
    >
      <FieldBody field={field} leader={leader} language={language} findings={findings} />
      <div className="field-side">
        {isInHoldings ? <span className="faded">{wording.inHoldings}</span> : null}
        {findings.map((f, i) => (
          <Mark key={i} kind={KIND_OF_SEVERITY[f.severity]} name={f.message} />
        ))}
        {isEditable && isActive ? (
          <Button
            type="text"
            size="small"
            className="field-edit"
            data-act="edit"
            aria-label={wording.editField(field.tag)}
          >
            {wording.edit}
          </Button>
        ) : null}
      </div>
      {findings.length ? (
        <ul className="field-findings">
          {findings.map((f, i) => (
            <li key={i}>
              {f.message}{' '}
              {f.fix && isEditable ? (
                <Button size="small" className="fix" data-act="fix" data-fix={i}>
                  {f.fix.sentence} <kbd>f</kbd>
                </Button>
              ) : null}
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
});
