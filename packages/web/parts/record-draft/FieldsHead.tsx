import type { QuickAddition } from '@osier/core/editing';
import { Button } from 'antd';
import { useState, type ReactNode } from 'react';
import { FieldTools } from '../field-editor/FieldTools';
import { QuickAdditionForm, QuickAdditionMenu } from '../field-editor/QuickAdditions';
import { TagPicker } from '../field-editor/TagPicker';
import { fieldWords as wording } from '../field-editor/words';
import type { RecordDraft } from './use-record-draft';

/** The heading of a record's fields, with what can be done to all of them. */
export function FieldsHead({
  edit,
  mayEdit,
  hasQuickAdditions = true,
  children = <h3>{wording.fields}</h3>,
}: {
  edit: RecordDraft;
  mayEdit: boolean;
  /** Additions of a bibliographic record: subjects, notes. */
  hasQuickAdditions?: boolean;
  /** What stands in place of the heading. */
  children?: ReactNode;
}) {
  const [adding, setAdding] = useState<QuickAddition | null>(null);
  return (
    <>
      <div className="row spread">
        {children}
        {mayEdit ? (
          <span className="row">
            {edit.fixable > 1 ? (
              <Button size="small" onClick={() => void edit.fixAll()}>
                {wording.fixAll(edit.fixable)}
              </Button>
            ) : null}
            <FieldTools edit={edit} />
            {hasQuickAdditions ? <QuickAdditionMenu onChoose={setAdding} /> : null}
            <TagPicker leader={edit.marc.leader} onChoose={edit.beginTag} />
          </span>
        ) : null}
      </div>
      {adding ? (
        <QuickAdditionForm key={adding} which={adding} edit={edit} onClose={() => setAdding(null)} />
      ) : null}
    </>
  );
}
