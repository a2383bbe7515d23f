import { Button } from 'antd';
import type { ReactNode } from 'react';
import { FieldTools } from '../field-editor/FieldTools';
import { TagPicker } from '../field-editor/TagPicker';
import { fieldWords as wording } from '../field-editor/words';
import type { RecordDraft } from './use-record-draft';

/** The heading of a record's fields, with what can be done to all of them. */
export const FieldsHead = ({
  edit,
  mayEdit,
  children = <h3>{wording.fields}</h3>,
}: {
  edit: RecordDraft;
  mayEdit: boolean;
  /** What stands in place of the heading. */
  children?: ReactNode;
}) => (
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
        <TagPicker leader={edit.marc.leader} onChoose={edit.beginTag} />
      </span>
    ) : null}
  </div>
);
