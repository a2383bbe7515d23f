import { api, type LookAlikeGroup, type ShownHeading } from '@osier/contract';
import { SAME, suggestedForm, type TakenFields } from '@osier/core/headings';
import { AutoComplete, Button, Checkbox, Collapse, Input } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { KitField } from '../../parts/form/KitField';
import { Mark } from '../../parts/Mark';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { HeadingCard } from './HeadingCard';
import { RegistryNames } from './RegistryNames';
import { useRegistry } from './use-registry';
import { MergeSheet } from './MergeSheet';
import { headingsWords as wording } from './words';

const VERDICT_MARK = { same: 'clear', perhaps: 'information', different: 'caution' } as const;

/**
 * Headings side by side: choose the form that is kept, or type another, take out who does not belong, merge; or note that they are different, or
 * put them by.
 */
export function GroupPiece({
  headings,
  pairs,
  isLater = false,
  onDone,
  onNext,
}: {
  headings: readonly ShownHeading[];
  pairs: LookAlikeGroup['pairs'];
  isLater?: boolean;
  onDone: () => void;
  onNext?: () => void;
}) {
  const registry = useRegistry(headings[0]);
  const ofRegistry = new Set(registry.answer?.names.filter((n) => !n.isGone).map((n) => n.text));
  const suggested = suggestedForm(headings.map((h) => ({ ...h, isOfRegistry: ofRegistry.has(h.text) })));
  const [chosen, setKept] = useState<number | null>(null);
  const kept = chosen ?? suggested.id;
  const [out, setOut] = useState<ReadonlySet<number>>(new Set());
  const [form, setForm] = useState('');
  const [taken, setTaken] = useState<readonly TakenFields[]>([]);
  const [reason, setReason] = useState('');
  const [reviewing, setReviewing] = useState(false);
  /** Decided, and about to give way to the next group: a key that is pressed now is not for this one any more. */
  const [isDecided, setDecided] = useState(false);
  const mayMerge = useMay('merge headings');
  const { say, complain } = useShell();
  const lost = headings.filter((h) => h.id !== kept && !out.has(h.id));
  const ids = headings.map((h) => h.id);
  const { data: seen } = useApi(api.headings.evidence, { query: { ids: ids.join(',') } });
  // Until the records have been looked at, what the forms alone say.
  const judged =
    seen?.pairs ??
    pairs.map((p) => ({
      ...p,
      verdict: p.score >= SAME ? ('same' as const) : ('perhaps' as const),
      evidence: p.why.split('; '),
    }));
  const isOfPeople = headings.every((h) => h.kind === 'personal');
  const name = (id: number) => headings.find((h) => h.id === id)?.text ?? String(id);
  const takeable = [...new Set(lost.flatMap((h) => h.takeable))];
  const isMerging = headings.some((h) => h.merging);
  const decide = async (act: () => Promise<{ sentence: string; entry: number | null }>) => {
    setDecided(true);
    try {
      const done = await act();
      if (done.entry !== null) say(done.sentence, done.entry);
      onDone();
      await refresh();
    } catch (e) {
      setDecided(false);
      complain(problemText(e));
    }
  };
  const tell = (later: boolean) =>
    decide(() => call(api.headings.keepApart, { body: { headings: ids, reason, later } }));
  const takeUp = () => decide(() => call(api.headings.takeUp, { body: { headings: ids } }));
  const keep = (id: number) => {
    setKept(id);
    setOut(new Set([...out].filter((x) => x !== id)));
  };
  const toggle = (id: number) =>
    setOut(out.has(id) ? new Set([...out].filter((x) => x !== id)) : new Set([...out, id]));
  return (
    <div className="stack">
      <h2>{isOfPeople ? wording.onePersonOrSeveral : wording.oneHeadingOrSeveral}</h2>
      <ul className="whys">
        {judged.map((p) => (
          <li key={`${p.a} ${p.b}`}>
            <Mark kind={VERDICT_MARK[p.verdict]} name={wording.verdicts[p.verdict]} />{' '}
            {wording.judgedPair(
              wording.verdicts[p.verdict],
              headings.length > 2 ? [name(p.a), name(p.b)] : [],
              p.evidence,
            )}
          </li>
        ))}
      </ul>
      <div className="name-cards" role="radiogroup" aria-label={wording.chooseTheKeptForm}>
        {headings.map((h) => (
          <HeadingCard
            key={h.id}
            heading={h}
            seen={seen?.headings.find((s) => s.id === h.id)}
            state={h.id === kept ? 'kept' : out.has(h.id) ? 'out' : 'lost'}
            isFixed={!mayMerge}
            note={h.id === suggested.id ? <p>{wording.suggested[suggested.why]}</p> : null}
            onKeep={() => keep(h.id)}
            onToggle={headings.length > 2 ? () => toggle(h.id) : undefined}
          />
        ))}
      </div>
      {mayMerge && takeable.length ? (
        <div className="row">
          <span>{wording.alsoTake}</span>
          <Checkbox.Group
            options={takeable.map((t) => ({ value: t, label: wording.taken[t] }))}
            value={taken.filter((t) => takeable.includes(t))}
            onChange={setTaken}
          />
        </div>
      ) : null}
      {mayMerge ? (
        <>
          <div className="row">
            <Button
              type="primary"
              data-key="m"
              disabled={(lost.length === 0 && !form) || isMerging || isDecided}
              onClick={() => {
                // What the registry answers from now on changes nothing that is being reviewed.
                setKept(kept);
                setReviewing(true);
              }}
            >
              {wording.mergeHeadingsInto1(lost.length + 1)}
            </Button>
            <Button data-key="x" disabled={isDecided} onClick={() => void tell(false)}>
              {headings.length > 2
                ? wording.allDifferent
                : isOfPeople
                  ? wording.differentPeople
                  : wording.differentHeadings}
            </Button>
            {isLater ? (
              <Button data-key="l" disabled={isDecided} onClick={() => void takeUp()}>
                {wording.takeUp}
              </Button>
            ) : (
              <Button data-key="l" disabled={isDecided} onClick={() => void tell(true)}>
                {wording.later}
              </Button>
            )}
            {onNext ? (
              <Button data-key="n" onClick={onNext}>
                {wording.next}
              </Button>
            ) : null}
          </div>
          <div className="row">
            <AutoComplete
              className="reason"
              aria-label={wording.reason}
              placeholder={wording.reason}
              value={reason}
              options={wording.reasons.map((value) => ({ value }))}
              onChange={(text: string) => setReason(text)}
            />
          </div>
          <Collapse
            ghost
            size="small"
            items={[
              {
                key: 'form',
                label: wording.anotherForm,
                children: (
                  <KitField label={wording.newForm} help={wording.anotherFormHelp}>
                    <Input className="mono" value={form} onChange={(e) => setForm(e.target.value)} />
                  </KitField>
                ),
              },
            ]}
          />
        </>
      ) : null}
      {registry.isAsked ? <RegistryNames answer={registry.answer} heading={null} /> : null}
      {reviewing ? (
        <MergeSheet
          title={wording.mergeHeadingsInto12(lost.length + 1)}
          body={{
            kept,
            lost: lost.map((h) => h.id),
            taken: taken.filter((t) => takeable.includes(t)),
            ...(form && { form }),
          }}
          onClose={() => setReviewing(false)}
          onDone={onDone}
        />
      ) : null}
    </div>
  );
}
