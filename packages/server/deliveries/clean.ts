import type { Review } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { counted, update, type Versioned } from '@osier/core/changes';
import type { Incoming } from '@osier/core/deliveries';
import type { HouseRules } from '@osier/core/house';
import { BUILT_IN, runRecipe, stepSentence, type Recipe } from '@osier/core/recipes';
import { quoted } from '../daybook/sentences';
import { wrong } from '../http/problem';
import type { JobRun } from '../jobs/jobs';
import type { Services } from '../services';
import { inChunks } from './in-chunks';

const SHOWN = 200;

export function recipeNamed(id: string): Recipe {
  const recipe = BUILT_IN.find((r) => r.id === id);
  if (!recipe) throw wrong('recipe', `There is no recipe “${id}”.`);
  return recipe;
}

/** What the recipe does to each record, with the steps that touched it. The review and the act both come from here. */
function cleaned(rows: readonly Versioned<Incoming>[], recipe: Recipe, house: HouseRules) {
  return rows.flatMap((row) => {
    const { record, touched } = runRecipe(row.value.marc, recipe, house);
    if (touched.length === 0) return [];
    return [
      {
        row,
        touched,
        change: update<Incoming>('incoming', row, { ...row.value, marc: record, recipe: recipe.name }),
      },
    ];
  });
}

export const cleanDelivery =
  (services: Services) =>
  async (run: JobRun): Promise<string | null> => {
    const id = Number(run.work.delivery);
    const delivery = await services.store.read('delivery', id);
    if (!delivery) return 'The delivery is no longer there.';
    const recipe = recipeNamed(String(run.work.recipe));
    const house = (await services.store.house()).value;
    const totals = await inChunks(services, run, {
      act: 'clean',
      delivery: id,
      leaveOut: new Set(run.work.leaveOut as number[]),
      sentence: (t) =>
        `Ran “${recipe.name}” over ${quoted(delivery.value.name)}: ${counted(t.changed ?? 0, 'record')} changed`,
      plan: (chunk) => {
        const rows = cleaned(chunk, recipe, house);
        return Promise.resolve({ changes: rows.map((r) => r.change), totals: { changed: rows.length } });
      },
    });
    return totals.changed
      ? `“${recipe.name}” changed ${counted(totals.changed, 'record')}.`
      : 'The recipe had nothing to change.';
  };

export async function reviewClean(services: Services, id: number, recipeId: string): Promise<Review> {
  const recipe = recipeNamed(recipeId);
  const house = (await services.store.house()).value;
  const waiting = await services.store.select(
    'incoming',
    "delivery = :id AND state = 'waiting' ORDER BY seq",
    { id },
  );
  const rows = cleaned(waiting, recipe, house);
  const consequences = recipe.steps.map((step, i) => {
    const n = rows.filter((r) => r.touched.includes(i)).length;
    const remark =
      n === 0
        ? 'touches nothing'
        : n > waiting.length * 0.9 && waiting.length > 5
          ? `${counted(n, 'record')}, nearly all`
          : counted(n, 'record');
    return `${stepSentence(step, house)}: ${remark}.`;
  });
  return {
    sentence: `“${recipe.name}” changes ${rows.length} of ${counted(waiting.length, 'waiting record')}.`,
    verb: `Clean ${counted(rows.length, 'record')}`,
    count: rows.length,
    consequences,
    rows: rows.slice(0, SHOWN).map(({ row, touched, change }) => ({
      id: row.id,
      label: briefOf(row.value.marc).title,
      detail: touched.map((t) => stepSentence(recipe.steps[t]!, house)).join('; '),
      exception: null,
      before: { marc: row.value.marc },
      after: { marc: change.after!.marc },
      canLeaveOut: true,
    })),
    more: Math.max(0, rows.length - SHOWN),
  };
}
