import { quoted } from '@osier/core/acts';
import type { CopyRowBody, Person, Review, ReviewRow, SeveralCopiesBody } from '@osier/contract';
import { groupedBarcode, isRollFor, rollMeantFor, serialIn, type LabelRoll } from '@osier/core/barcodes';
import { callNumberText } from '@osier/core/callnumbers';
import { counted } from '@osier/core/changes';
import { addSeveral, copyName, type CodeLists, type CopyToCome, type RowProblem } from '@osier/core/holdings';
import { wrong, wrongFields } from '../http/problem';
import { beginReview, changedSinceReview, showsTheSame, type Shown } from '../http/reviewed';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { numbersOfRoll, rollInUse } from '../suppliers/roll-in-use';
import { barcodeTerms, barcodeToBe, mayOverruleRolls } from './barcodes';
import { titleOf } from './holdings';

/** How numbers of objects to be made are given. */
type Numbers = (kind: 'holding' | 'copy', count: number) => Promise<number>;

/** What the rows make; throws what is wrong with them, each by its cell (`rows[1].barcode`). */
const plan = async (store: Store, body: SeveralCopiesBody, numbers: Numbers, mayOverrule: boolean) => ({
  title: await titleOf(store, body.record),
  ...(await planCopies(store, body, numbers, mayOverrule)),
});

/** The same for a record that is there, or is made in the same transaction. */
export async function planCopies(
  store: Store,
  { record, rows, keepBarcodes, roll }: Omit<SeveralCopiesBody, 'token'>,
  numbers: Numbers,
  mayOverrule: boolean,
) {
  const lists = (await store.lists()).value;
  const [holdings, copies] = [
    await store.find('holding', { where: { record }, order: [['id', 'ASC']] }),
    await store.find('copy', { where: { record } }),
  ];
  const problems: RowProblem[] = [];
  const overruled = new Set<string>();
  const toCome: CopyToCome[] = [];
  const nextLabel = await labelsOf(store, roll);
  const terms = await barcodeTerms(store);
  for (const [row, body] of rows.entries()) {
    const barcode = body.barcode || (nextLabel() ?? '');
    const wanted = {
      ...{ barcode, supplier: body.supplier, keepBarcode: keepBarcodes },
      ...{ own: null, mayOverrule },
    };
    const looked = await barcodeToBe(store, wanted, lists, terms);
    problems.push(...looked.problems.map((p) => ({ row, ...p })));
    if (looked.overruled) overruled.add(looked.overruled);
    toCome.push({ ...rowOf(body), barcode: looked.barcode });
  }
  let [nextHolding, nextCopy] = [await numbers('holding', rows.length), await numbers('copy', rows.length)];
  const made = addSeveral({
    record,
    rows: toCome,
    lists,
    currency: (await store.house()).value.currency,
    holdings,
    copies: copies.map((c) => c.value),
    nextHolding: () => nextHolding++,
    nextCopy: () => nextCopy++,
  });
  problems.push(...made.problems);
  if (problems.length)
    throw wrongFields(
      problems.map(({ row, field, ...told }) => ({ field: `rows[${row}].${field}`, ...told })),
    );
  return { toCome, copies: made.copies, made: made.holdings, overruled: [...overruled] };
}

const rowOf = ({ year, loanRule, ...row }: CopyRowBody): CopyToCome => ({
  ...row,
  ...(year && { year }),
  ...(loanRule !== 'lends' && { loanRule }),
});

/** Gives the next numbers of a label roll, as they stand in the transaction that uses them; none without a roll. */
async function labelsOf(store: Store, roll: number | null): Promise<() => string | null> {
  const used = await rollInUse(store, roll);
  if (roll !== null && !used) throw wrong('roll', 'This label roll is no longer there.');
  const next = await numbersOfRoll(store, used);
  return () => {
    const number = next();
    if (number === null && used)
      throw wrong(
        'roll',
        `The label roll ${quoted(used.roll.name)} ${used.roll.isClosed ? 'is closed' : 'has not enough numbers left'}.`,
      );
    return number;
  };
}

type Planned = Awaited<ReturnType<typeof plan>>;

/** What the review shows: the copies as they will be, and on which holdings. */
function see(shown: Shown, { copies, made, toCome, overruled }: Planned): void {
  for (const { change } of copies) {
    const { holding: _, ...copy } = change.after;
    shown.see(copy);
  }
  shown.see(overruled);
  shown.see(
    made.length,
    toCome.map((t) => [t.branch, t.location, callNumberText(t)]),
  );
}

/** What adding several copies would make. */
export async function reviewSeveral(
  { store }: Services,
  person: Person,
  body: SeveralCopiesBody,
): Promise<Review> {
  const shown = await beginReview(store);
  const planned = await plan(store, body, () => Promise.resolve(-1_000_000), mayOverruleRolls(person));
  see(shown, planned);
  const { copies, made, toCome, title, overruled } = planned;
  const lists = (await store.lists()).value;
  const name = (list: 'branches' | 'locations', code: string) =>
    lists[list].find((l) => l.code === code)?.name ?? code;
  return {
    sentence: `${counted(copies.length, 'copy', 'copies')} will be added to “${title}”.`,
    verb: 'Add',
    noun: { one: 'copy', many: 'copies' },
    count: copies.length,
    consequences: [
      ...(made.length ? [`${counted(made.length, 'new holding')} will be made.`] : []),
      ...overruled.map(
        (roll) => `Numbers of the label roll ${quoted(roll)} are taken though it is reserved.`,
      ),
      ...meantForOthers(
        planned,
        (await store.find('roll')).map((r) => r.value),
        lists,
      ),
    ],
    rows: copies.map(({ row, change }): ReviewRow => {
      const at = toCome[row]!;
      return {
        id: row + 1,
        label: groupedBarcode(change.after.barcode),
        detail: `${callNumberText(at)}, ${name('branches', at.branch)}, ${name('locations', at.location)}`,
        exception: null,
        before: null,
        after: { text: copyName(change.after) },
        canLeaveOut: false,
      };
    }),
    more: 0,
    token: shown.token(),
  };
}

/** Which rolls of the library's own are meant for other branches or types than the copies that have numbers of them. */
function meantForOthers(
  { copies, toCome }: Planned,
  rolls: readonly LabelRoll[],
  lists: CodeLists,
): string[] {
  return rolls.flatMap((roll) => {
    const n = copies.filter(
      ({ row, change }) =>
        serialIn(roll, change.after.barcode) !== null &&
        !isRollFor(roll, { branch: toCome[row]!.branch, type: change.after.type }),
    ).length;
    return n === 0
      ? []
      : [
          `${counted(n, 'barcode is', 'barcodes are')} of the label roll ${quoted(roll.name)}, which is meant for other copies: ${rollMeantFor(roll, lists)}.`,
        ];
  });
}

/** Adds several copies, with the holdings that they need, as one entry. */
export const addSeveralCopies = (
  { store }: Services,
  person: Person,
  body: SeveralCopiesBody,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person.id, async (s) => {
    const shown = await beginReview(s);
    const numbers: Numbers = (kind, count) => s.nextIds(kind, count);
    const planned = await plan(s, body, numbers, mayOverruleRolls(person));
    see(shown, planned);
    if (body.token !== undefined && !showsTheSame(body.token, shown.token())) throw changedSinceReview();
    const { title, copies, overruled } = planned;
    return {
      did: {
        act: 'add-copies',
        names: { title },
        counts: { copies: copies.length, holdings: planned.made.length },
        ...(overruled.length > 0 && { overruled }),
      },
      changes: [...planned.made, ...copies.map((c) => c.change)],
    };
  });
