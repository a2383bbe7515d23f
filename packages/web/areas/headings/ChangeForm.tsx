import type { HeadingDetail } from '@osier/contract';
import { lineOf } from '@osier/core/marc';
import { Button, Input, Modal } from 'antd';
import { useState } from 'react';
import { KitField } from '../../parts/form/KitField';
import { MergeSheet } from './MergeSheet';
import { headingsWords as wording } from './words';

/** The form of a heading as it is typed: `$aReedman, Amos,$d1880-1950`. */
export const typedFormOf = ({ marc }: Pick<HeadingDetail, 'marc'>): string => {
  const own = marc.fields.find((f) => f.tag.startsWith('1'));
  return own ? lineOf(own).slice(7) : '';
};

/** Gives a heading another form, in every record that carries it. */
export function ChangeForm({ heading, onClose }: { heading: HeadingDetail; onClose: () => void }) {
  const [form, setForm] = useState(() => typedFormOf(heading));
  const [reviewing, setReviewing] = useState(false);
  if (reviewing)
    return (
      <MergeSheet
        title={wording.changeTitle}
        body={{ kept: heading.id, lost: [], form }}
        onClose={() => setReviewing(false)}
        onDone={onClose}
      />
    );
  return (
    <Modal open onCancel={onClose} footer={null} title={wording.changeTitle} width={640} destroyOnHidden>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          setReviewing(true);
        }}
      >
        <KitField label={wording.newForm} help={wording.changeHelp}>
          <Input className="mono" autoFocus value={form} onChange={(e) => setForm(e.target.value)} />
        </KitField>
        <div className="kit-bar">
          <Button
            type="primary"
            htmlType="submit"
            disabled={form.trim() === '' || form === typedFormOf(heading)}
          >
            {wording.reviewChange}
          </Button>
          <Button onClick={onClose}>{wording.cancel}</Button>
        </div>
      </form>
    </Modal>
  );
}
