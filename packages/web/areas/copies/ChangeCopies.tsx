import type { ChangeCopiesBody } from '@osier/contract';
import {
  COPY_STATUSES,
  editFaults,
  EDITED_PARTS,
  LOAN_RULES,
  NO_LISTS,
  waysOf,
  type EditedPart,
  type EditWay,
  type LocalField,
} from '@osier/core/holdings';
import { DeleteOutlined } from '@ant-design/icons';
import { Button, Input, Modal, Select } from 'antd';
import { useState, type FormEvent } from 'react';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { useLocalFields } from '../../parts/local-fields';
import { useHouse } from '../../parts/use-house';
import { useSetUp } from '../setup/use-set-up';
import { copiesWords as wording } from './words';

type Edits = ChangeCopiesBody['edits'];
type Edit = Edits[number];
/** The parts of every copy, and what stands before the number of a local field. */
const PARTS = EDITED_PARTS.filter((p) => p !== 'local');
const LOCAL = 'local ';
const partChosen = (chosen: string): Pick<Edit, 'part' | 'field'> => {
  if (chosen.startsWith(LOCAL)) return { part: 'local', field: Number(chosen.slice(LOCAL.length)) };
  return { part: EDITED_PARTS.find((p) => p === chosen) ?? 'status', field: undefined };
};
const FIRST: Edit = { part: 'status', how: 'set', value: '', find: '' };

/** What is changed in many copies at once, part by part; the review comes after it. */
export function ChangeCopies({
  what,
  onReview,
  onClose,
}: {
  /** "12 copies". */
  what: string;
  onReview: (edits: Edits) => void;
  onClose: () => void;
}) {
  const [edits, setEdits] = useState<Edits>([FIRST]);
  const [isTold, setTold] = useState(false);
  const house = useHouse();
  const lists = useSetUp()?.lists.value;
  const localFields = useLocalFields();
  const fields = localFields.map((f) => ({ id: f.id, value: f.field }));
  const fieldOf = ({ field }: Pick<Edit, 'field'>) => fields.find((f) => f.id === field)?.value;
  const faults = house ? editFaults(edits, lists ?? NO_LISTS, house, fields) : [];
  const put = (at: number, part: Partial<Edit>) =>
    setEdits(edits.map((e, i) => (i === at ? { ...e, ...part } : e)));
  const review = (event: FormEvent) => {
    event.preventDefault();
    setTold(true);
    if (house && faults.length === 0) onReview(edits);
  };
  const told = (at: number, field: keyof Edit) =>
    isTold ? faults.find((f) => f.field === `edits[${at}].${field}`)?.message : undefined;
  return (
    <Modal open onCancel={onClose} footer={null} title={wording.changeCopies} width={720} destroyOnHidden>
      <form onSubmit={review} className="stack">
        {edits.map((edit, at) => (
          <div key={at} className="copy-edit" role="group" aria-label={wording.changeNumber(at + 1)}>
            <KitGrid isDense>
              <KitField label={wording.partToChange} problem={told(at, 'part')}>
                <Select<string>
                  autoFocus={at === 0}
                  showSearch={{ optionFilterProp: 'label' }}
                  value={edit.part === 'local' ? `${LOCAL}${edit.field}` : edit.part}
                  options={[
                    ...PARTS.map((value) => ({ value, label: wording.editedParts[value] })),
                    ...fields.map((f) => ({ value: `${LOCAL}${f.id}`, label: f.value.name })),
                  ]}
                  onChange={(chosen) => {
                    const to = partChosen(chosen);
                    put(at, { ...to, how: waysOf(to.part, fieldOf(to))[0] ?? 'set', value: '', find: '' });
                  }}
                />
              </KitField>
              <KitField label={wording.howToChange} problem={told(at, 'how')}>
                <Select<EditWay>
                  value={edit.how}
                  options={waysOf(edit.part, fieldOf(edit)).map((value) => ({
                    value,
                    label: wording.editWays[value],
                  }))}
                  onChange={(how) => put(at, { how })}
                />
              </KitField>
              {edit.how === 'replace' ? (
                <KitField label={wording.replacedText} problem={told(at, 'find')}>
                  <Input value={edit.find} onChange={(e) => put(at, { find: e.target.value })} />
                </KitField>
              ) : null}
              {edit.how === 'clear' || edit.how === 'house' ? null : (
                <EditValue
                  edit={edit}
                  local={fieldOf(edit)}
                  problem={told(at, 'value')}
                  onPut={(value) => put(at, { value })}
                />
              )}
            </KitGrid>
            {edits.length > 1 ? (
              <Button
                size="small"
                type="text"
                icon={<DeleteOutlined />}
                aria-label={wording.removeChange(at + 1)}
                onClick={() => setEdits(edits.filter((_, i) => i !== at))}
              />
            ) : null}
          </div>
        ))}
        <div className="kit-bar">
          <Button type="primary" htmlType="submit">
            {wording.reviewChanges(what)}
          </Button>
          <Button onClick={() => setEdits([...edits, { ...FIRST, part: 'staffNote' }])}>
            {wording.addAChange}
          </Button>
          <Button onClick={onClose}>{wording.cancel}</Button>
        </div>
      </form>
    </Modal>
  );
}

/** The value of a change: a code of its list, or a text. */
function EditValue({
  edit,
  local,
  problem,
  onPut,
}: {
  edit: Edit;
  /** The local field that is changed. */
  local: LocalField | undefined;
  problem: string | undefined;
  onPut: (value: string) => void;
}) {
  const lists = useSetUp()?.lists.value;
  const plain = (values: readonly string[]) => values.map((code) => ({ code, name: code }));
  const coded: Readonly<Partial<Record<EditedPart, readonly { code: string; name: string }[]>>> = {
    type: lists?.types,
    branch: lists?.branches,
    location: lists?.locations,
    fund: lists?.funds,
    supplier: lists?.suppliers,
    status: plain(COPY_STATUSES),
    loanRule: plain(LOAN_RULES),
  };
  const options = local?.form === 'choice' ? plain(local.choices) : coded[edit.part];
  return (
    <KitField
      label={edit.how === 'replace' ? wording.replacedBy : wording.newValue}
      help={edit.part === 'acquired' || local?.form === 'date' ? wording.dayForm : undefined}
      problem={problem}
    >
      {options ? (
        <Select<string>
          showSearch={{ optionFilterProp: 'label' }}
          popupMatchSelectWidth={false}
          value={edit.value || null}
          options={options.map((o) => ({
            value: o.code,
            label: o.code === o.name ? o.name : `${o.code}  ${o.name}`,
          }))}
          onChange={onPut}
        />
      ) : (
        <Input value={edit.value} onChange={(e) => onPut(e.target.value)} />
      )}
    </KitField>
  );
}
