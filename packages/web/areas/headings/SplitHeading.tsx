import { api, type HeadingDetail } from '@osier/contract';
import { Button, Checkbox, Input } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { KitField } from '../../parts/form/KitField';
import { ActSheet } from './ActSheet';
import { typedFormOf } from './ChangeForm';
import { headingsWords as wording } from './words';

/** Chooses which records of a heading that mixes two go to another one. */
export function SplitHeading({ heading, onClose }: { heading: HeadingDetail; onClose: () => void }) {
  const [form, setForm] = useState(() => typedFormOf(heading));
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const [reviewing, setReviewing] = useState(false);
  const params = { id: heading.id };
  const body = { form, records: [...chosen] };
  return (
    <form
      className="stack"
      onSubmit={(e) => {
        e.preventDefault();
        setReviewing(true);
      }}
    >
      <h3>{wording.splitTitle}</h3>
      <KitField label={wording.formOfOther} help={wording.formOfOtherHelp}>
        <Input className="mono" autoFocus value={form} onChange={(e) => setForm(e.target.value)} />
      </KitField>
      <p>{wording.splitHelp}</p>
      <Checkbox.Group
        className="split-records"
        aria-label={wording.recordsOfIt}
        value={[...chosen]}
        onChange={setChosen}
        options={heading.usedBy.map((r) => ({ value: r.id, label: `${r.title} ${r.year}` }))}
      />
      {heading.records > heading.usedBy.length ? (
        <p className="faded">
          {wording.firstOnly(
            heading.usedBy.length.toLocaleString('en-GB'),
            heading.records.toLocaleString('en-GB'),
          )}
        </p>
      ) : null}
      <div className="kit-bar">
        <Button
          type="primary"
          htmlType="submit"
          disabled={chosen.length === 0 || form === typedFormOf(heading)}
        >
          {wording.reviewSplit(chosen.length)}
        </Button>
        <Button onClick={onClose}>{wording.cancel}</Button>
      </div>
      {reviewing ? (
        <ActSheet
          title={wording.splitTitle}
          name={['split', heading.id, body]}
          page={(from) => call(api.headings.reviewSplit, { params, body: { ...body, from } })}
          act={(token) => call(api.headings.split, { params, body: { ...body, token } })}
          onClose={() => setReviewing(false)}
          onDone={onClose}
        />
      ) : null}
    </form>
  );
}
