import { api } from '@osier/contract';
import { call } from '../../api/call';
import { transactionBetween } from '@osier/core/editing';
import { DEFAULT_HOUSE } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';
import { stepSentence, stepsFromEdit } from '@osier/core/recipes';
import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input } from 'antd';
import { useMemo, useState } from 'react';
import { refresh, useApi } from '../../api/queries';
import { RequestProblem } from '../../api/request';
import { leadsTo, type DoneToRecord } from '../../parts/record-draft/edit-histories';
import { useShell } from '../../shell/shell-store';
import { deliveriesWords as wording } from './words';

/** What was done to this record by hand, offered as steps of a recipe for the others of the delivery. */
export function KeepRecipe({
  delivery,
  incoming,
  original,
  marc,
  done,
}: {
  delivery: number;
  incoming: number;
  original: MarcRecord;
  marc: MarcRecord;
  /** What was done to it on this page, when that is known. */
  done: DoneToRecord | undefined;
}) {
  const { data } = useApi(api.setup.read);
  const house = data?.house.value ?? DEFAULT_HOUSE;
  const steps = useMemo(
    () =>
      done && leadsTo(done, marc)
        ? stepsFromEdit(done.before, done.done)
        : stepsFromEdit(original, [{ transaction: transactionBetween(original, marc) }]),
    [original, marc, done],
  );
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const say = useShell((s) => s.say);
  const { data: counted } = useQuery({
    queryKey: [`/deliveries/${delivery}/count-steps`, incoming, steps],
    queryFn: () =>
      call(api.deliveries.countSteps, { params: { id: delivery }, body: { steps, besides: incoming } }),
    enabled: steps.length > 0,
    retry: false,
  });
  if (steps.length === 0) return null;
  const chosen = steps.filter((_, i) => !left.has(i));
  const keep = async () => {
    try {
      const done = await call(api.recipes.keep, { body: { name, steps: chosen } });
      setProblem(null);
      setName('');
      say(wording.runItWithClean(done.sentence), done.entry);
      await refresh();
    } catch (e) {
      if (!(e instanceof RequestProblem)) throw e;
      setProblem(e);
    }
  };
  return (
    <section className="keep-recipe" aria-label={wording.saveWhatWasDoneAs}>
      <h3>{wording.applyToOtherRecords}</h3>
      <ul>
        {steps.map((step, i) => (
          <li key={i}>
            <Checkbox
              checked={!left.has(i)}
              onChange={() =>
                setLeft(left.has(i) ? new Set([...left].filter((x) => x !== i)) : new Set([...left, i]))
              }
            >
              {stepSentence(step, house)}
              {counted ? (
                <span className="faded">
                  {wording.wouldChange(counted.counts[i] ?? 0, counted.of, counted.isAll)}
                </span>
              ) : null}
            </Checkbox>
          </li>
        ))}
      </ul>
      <div className="row">
        <Input
          aria-label={wording.nameOfTheRecipe}
          placeholder={wording.nameOfTheRecipe}
          value={name}
          onChange={(e) => setName(e.target.value)}
          onPressEnter={() => void keep()}
          style={{ width: 260 }}
        />
        <Button disabled={chosen.length === 0} onClick={() => void keep()}>
          {wording.saveAsARecipe(chosen.length === 1 ? wording.thisStep : wording.theseSteps(chosen.length))}
        </Button>
      </div>
      {problem ? (
        <p className="field-problem" role="alert">
          {problem.field('name') ?? problem.message}
        </p>
      ) : null}
    </section>
  );
}
