import type { Review, ReviewRow, ReviewSide } from '@osier/contract';
import { counted } from '@osier/core/changes';
import { Button, Checkbox, Drawer } from 'antd';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { problemText, RequestProblem } from '../api/request';
import { Compare } from './Compare';
import { FieldBody } from './field-editor/FieldBody';
import { Mark } from './Mark';
import { readKept, writeKept } from './kept-state';
import './review-sheet.css';
import { partWords as wording } from './words';

/** Rows that were left out of a review, with the token of it. */
function keptIn(kept: unknown): { readonly token: unknown; readonly leftOut: readonly number[] } | null {
  if (typeof kept !== 'object' || kept === null || !('leftOut' in kept) || !('token' in kept)) return null;
  const { token, leftOut } = kept;
  return Array.isArray(leftOut) ? { token, leftOut: leftOut.filter((id) => typeof id === 'number') } : null;
}

interface Props {
  readonly title: string;
  readonly review: Review | undefined;
  readonly problem?: string | null;
  readonly onClose: () => void;
  /** Gives the page of the review that begins with this row, where there are more rows than one. */
  readonly onMore?: (from: number) => Promise<Review>;
  /** Does the act that the review with this token shows, without the rows left out. */
  readonly onDo: (leftOut: readonly number[], token: string) => Promise<unknown>;
  /** Works the review out again, after the act was refused because something has changed. */
  readonly onAnew?: () => Promise<unknown>;
  readonly canDo?: boolean;
  readonly whyNot?: string;
  readonly children?: ReactNode;
}

/**
 * What every batch act shows first: one sentence with counts, consequences worth a second look, then the rows,
 * exceptions before the rest, each with before → after and a tick to leave it out; one button with verb and number.
 */
export function ReviewSheet({
  title,
  review,
  problem,
  onClose,
  onMore,
  onDo,
  onAnew,
  canDo = true,
  whyNot,
  children,
}: Props) {
  const [leftOut, setLeftOut] = useState<ReadonlySet<number>>(new Set());
  const [doing, setDoing] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  /** The rows as they were when the act was refused, so that what is different can be marked. */
  const [seen, setSeen] = useState<ReadonlyMap<number, string> | null>(null);
  const { rows, more, loading, next } = useRows(review, onMore, setFailed);
  const button = useRef<HTMLButtonElement>(null);
  const ready = review !== undefined;
  useEffect(() => {
    if (ready) button.current?.focus();
  }, [ready]);
  const token = review?.token;
  useEffect(() => {
    // What was left out of the very same review is left out again.
    const kept = keptIn(readKept(`review ${title}`));
    if (token !== undefined && kept?.token === token) setLeftOut(new Set(kept.leftOut));
  }, [token, title]);
  const act = async () => {
    if (!review || doing || !canDo || remaining(review, leftOut) === 0) return;
    setDoing(true);
    setFailed(null);
    try {
      await onDo([...leftOut], review.token);
      writeKept(`review ${title}`, null);
      onClose();
    } catch (error) {
      setFailed(problemText(error));
      if (error instanceof RequestProblem && error.problem.status === 409) {
        setSeen(new Map(rows.map((r) => [r.id, JSON.stringify(r)])));
        await onAnew?.();
      }
    } finally {
      setDoing(false);
    }
  };
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'Enter' || !event.ctrlKey) return;
      event.preventDefault();
      void latest.current();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, []);
  const isOther = (r: ReviewRow) => seen !== null && seen.get(r.id) !== JSON.stringify(r);
  const exceptions = rows.filter((r) => r.exception !== null);
  const rest = rows.filter((r) => r.exception === null);
  const toggle = (id: number) => {
    const next = leftOut.has(id) ? [...leftOut].filter((x) => x !== id) : [...leftOut, id];
    setLeftOut(new Set(next));
    writeKept(`review ${title}`, next.length ? { token, leftOut: next } : null);
  };
  return (
    <Drawer
      open
      onClose={onClose}
      title={title}
      size="min(880px, 96vw)"
      className="review-sheet"
      afterOpenChange={(isOpen) => isOpen && ready && button.current?.focus()}
      keyboard
      footer={
        <div className="row spread">
          <span role="alert" className="field-problem">
            {failed ?? (canDo ? '' : whyNot)}
          </span>
          <span className="row">
            <Button onClick={onClose}>
              {wording.cancel} <kbd>Esc</kbd>
            </Button>
            <Button
              ref={button}
              type="primary"
              loading={doing}
              disabled={!canDo || !review || remaining(review, leftOut) === 0}
              onClick={() => void act()}
            >
              {review ? verbFor(review, leftOut) : '…'} <kbd>Ctrl Enter</kbd>
            </Button>
          </span>
        </div>
      }
    >
      <div className="stack">
        {problem ? (
          <p className="note stop" role="alert">
            {problem}
          </p>
        ) : null}
        {!review && !problem ? <p className="faded">{wording.workingOutWhatWouldChange}</p> : null}
        {review ? (
          <>
            <p className="review-sentence">{review.sentence}</p>
            {review.consequences.length ? (
              <ul className="review-consequences">
                {review.consequences.map((c, i) => (
                  <li key={i}>
                    <Mark kind="information" /> {c}
                  </li>
                ))}
              </ul>
            ) : null}
            {children}
            {exceptions.length ? (
              <Rows
                name={wording.lookAtTheseFirst}
                rows={exceptions}
                leftOut={leftOut}
                isOther={isOther}
                toggle={toggle}
                open
              />
            ) : null}
            {rest.length ? (
              <Rows
                name={exceptions.length ? wording.theRest : wording.whatChanges}
                rows={rest}
                leftOut={leftOut}
                isOther={isOther}
                toggle={toggle}
                open={exceptions.length === 0 || rest.length <= 10}
              />
            ) : null}
            {more > 0 ? (
              <p className="row">
                <span className="faded">{wording.andMore(more.toLocaleString('en-GB'))}</span>
                {onMore ? (
                  <Button size="small" loading={loading} onClick={next}>
                    {wording.showTheNext(Math.min(more, review.rows.length).toLocaleString('en-GB'))}
                  </Button>
                ) : null}
              </p>
            ) : null}
          </>
        ) : null}
      </div>
    </Drawer>
  );
}

/** The rows of a review, page after page. */
function useRows(
  review: Review | undefined,
  onMore: Props['onMore'],
  onFailed: (why: string | null) => void,
): { rows: readonly ReviewRow[]; more: number; loading: boolean; next: () => void } {
  const [pages, setPages] = useState<{ of: Review | undefined; pages: readonly Review[] }>({
    of: review,
    pages: [],
  });
  const [loading, setLoading] = useState(false);
  const further = pages.of === review ? pages.pages : [];
  const rows = [...(review?.rows ?? []), ...further.flatMap((p) => p.rows)];
  const next = async () => {
    setLoading(true);
    onFailed(null);
    try {
      const page = await onMore!(rows.length);
      setPages({ of: review, pages: [...further, page] });
    } catch (error) {
      onFailed(problemText(error));
    } finally {
      setLoading(false);
    }
  };
  return { rows, more: (further.at(-1) ?? review)?.more ?? 0, loading, next: () => void next() };
}

const remaining = (review: Review, leftOut: ReadonlySet<number>) => review.count - leftOut.size;

/** The verb with the number of what is left after leaving rows out: "Accept 41 records". */
const verbFor = (review: Review, leftOut: ReadonlySet<number>): string =>
  `${review.verb} ${counted(remaining(review, leftOut), review.noun.one, review.noun.many)}`;

function Rows({
  name,
  rows,
  leftOut,
  isOther,
  toggle,
  open,
}: {
  name: string;
  rows: readonly ReviewRow[];
  leftOut: ReadonlySet<number>;
  isOther: (row: ReviewRow) => boolean;
  toggle: (id: number) => void;
  open: boolean;
}) {
  return (
    <details open={open} className="review-rows">
      <summary>
        {name} ({rows.length})
      </summary>
      {rows.map((r) => (
        <div key={`${r.label}${r.id}`} className={leftOut.has(r.id) ? 'review-row left-out' : 'review-row'}>
          <div className="row">
            {r.canLeaveOut ? (
              <Checkbox checked={!leftOut.has(r.id)} onChange={() => toggle(r.id)}>
                <b>{r.label}</b>
              </Checkbox>
            ) : (
              <b>{r.label}</b>
            )}
            <span className="faded">{r.detail}</span>
          </div>
          {isOther(r) ? (
            <p className="review-exception">
              <Mark kind="information" /> {wording.thisIsDifferentFromWhat}
            </p>
          ) : null}
          {r.exception ? (
            <p className="review-exception">
              <Mark kind="caution" /> {r.exception}
            </p>
          ) : null}
          <BeforeAfter before={r.before} after={r.after} />
        </div>
      ))}
    </details>
  );
}

function BeforeAfter({ before, after }: { before: ReviewSide | null; after: ReviewSide | null }) {
  if (before && after && 'marc' in before && 'marc' in after)
    return <Compare before={before.marc} after={after.marc} />;
  if (!before && after && 'marc' in after)
    return (
      <details className="new-record">
        <summary>{wording.showTheRecord}</summary>
        {after.marc.fields.map((f, i) => (
          <div key={i} className="field-row">
            <FieldBody field={f} leader={after.marc.leader} />
          </div>
        ))}
      </details>
    );
  const text = (side: ReviewSide | null) =>
    side === null ? '–' : 'text' in side ? side.text : wording.theRecord;
  return (
    <p className="before-after">
      <del className="lost">{text(before)}</del> → <ins className="new">{text(after)}</ins>
    </p>
  );
}
