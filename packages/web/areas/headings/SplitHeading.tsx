import { api, type HeadingDetail } from '@osier/contract';
import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { KitField } from '../../parts/form/KitField';
import { ReviewSheet } from '../../parts/ReviewSheet';
import { useShell } from '../../shell/shell-store';
import { typedFormOf } from './ChangeForm';
import { headingsWords as wording } from './words';

/** Chooses which records of a heading that mixes two go to another one. */
export function SplitHeading({ heading, onClose }: { heading: HeadingDetail; onClose: () => void }) {
  const [form, setForm] = useState(() => typedFormOf(heading));
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const [reviewing, setReviewing] = useState(false);
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
        <SplitSheet
          id={heading.id}
          body={{ form, records: [...chosen] }}
          onClose={() => setReviewing(false)}
          onDone={onClose}
        />
      ) : null}
    </form>
  );
}

function SplitSheet({
  id,
  body,
  onClose,
  onDone,
}: {
  id: number;
  body: { form: string; records: number[] };
  onClose: () => void;
  onDone: () => void;
}) {
  const { say } = useShell();
  const page = (from: number) => call(api.headings.reviewSplit, { params: { id }, body: { ...body, from } });
  const review = useQuery({
    queryKey: ['review', 'split', id, body],
    queryFn: () => page(0),
    gcTime: 0,
    retry: false,
  });
  const act = async (_: readonly number[], token: string) => {
    const done = await call(api.headings.split, { params: { id }, body: { ...body, token } });
    say(done.sentence, done.entry);
    onDone();
    await refresh();
  };
  return (
    <ReviewSheet
      title={wording.splitTitle}
      review={review.data}
      problem={review.error ? problemText(review.error) : null}
      onClose={onClose}
      onDo={act}
      onAnew={review.refetch}
      onMore={page}
    />
  );
}
