import { DownOutlined } from '@ant-design/icons';
import { QUICK_ADDITIONS, quickField, type QuickAddition } from '@osier/core/editing';
import { withField } from '@osier/core/marc';
import { Button, Input } from 'antd';
import { useState, type FormEvent } from 'react';
import type { RecordDraft } from '../record-draft/use-record-draft';
import { ActionMenu } from '../ActionMenu';
import { fieldWords as wording } from './words';

const KINDS: readonly QuickAddition[] = [
  'summary',
  'contents',
  'reading level',
  'course programme',
  'local note',
  'link',
  'cover',
];
/** Texts that run over several lines as they are typed. */
const LONG: readonly QuickAddition[] = ['summary', 'contents'];

/** Chooses a note or link to add to a record. */
export const QuickAdditionMenu = ({ onChoose }: { onChoose: (which: QuickAddition) => void }) => (
  <ActionMenu
    menu={{
      items: KINDS.map((which) => ({
        key: which,
        label: `${wording.quick[which].name} (${QUICK_ADDITIONS[which].tag})`,
        onClick: () => onChoose(which),
      })),
    }}
  >
    <Button size="small" data-key="l">
      {wording.addNoteOrLink} <DownOutlined />
    </Button>
  </ActionMenu>
);

/** The small form of a note or link: what is typed is written as the field that it belongs in. */
export function QuickAdditionForm({
  which,
  edit,
  onClose,
}: {
  which: QuickAddition;
  edit: RecordDraft;
  onClose: () => void;
}) {
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const { codes } = QUICK_ADDITIONS[which];
  const { name, labels } = wording.quick[which];
  const add = (event: FormEvent) => {
    event.preventDefault();
    const added = quickField(which, texts);
    if (added) edit.become(withField(edit.marc, added));
    onClose();
  };
  return (
    <form
      className="quick-addition note"
      aria-label={name}
      onSubmit={add}
      onKeyDown={(e) => {
        if (e.key !== 'Escape') return;
        e.stopPropagation();
        onClose();
      }}
    >
      {codes.map((code, i) => {
        const shared = {
          autoFocus: i === 0,
          value: texts[code] ?? '',
        };
        return (
          <label key={code}>
            {labels[i]}
            {LONG.includes(which) ? (
              <Input.TextArea
                {...shared}
                rows={4}
                onChange={(e) => setTexts({ ...texts, [code]: e.target.value.replace(/\s*\n\s*/g, ' ') })}
              />
            ) : (
              <Input {...shared} onChange={(e) => setTexts({ ...texts, [code]: e.target.value })} />
            )}
          </label>
        );
      })}
      <div className="row">
        <Button type="primary" size="small" htmlType="submit">
          {wording.addTo(name.toLowerCase())}
        </Button>
        <Button size="small" onClick={onClose}>
          {wording.cancel}
        </Button>
      </div>
    </form>
  );
}
