import type { WithdrawalList, WithdrawalRow } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { allLimits, type HouseRules, type WithdrawalLimits } from '@osier/core/house';
import { dueOf } from '@osier/core/holdings';
import { weighWithdrawals, type Candidate, type Listed } from '@osier/core/withdrawals';
import type { StoredObject } from '@osier/core/kinds';
import { nearBarcodes } from '../catalogue/search';
import { quoted } from '@osier/core/acts';
import { today } from '../day';
import { notFound } from '../http/problem';
import type { LoanAnswers } from '../loans/ports';
import { scansOf } from '../scanner/scans';
import type { Services } from '../services';
import type { ScanColumns } from '../store/models';
import type { Store } from '../store/store';
import { countsOf } from './counts';
import { keptByField } from './kept-fields';
import { withPulled } from './to-pull';
import { barcodesOnList, copyFacts, onOtherLists, scansOfSameTitles, type CopyFacts } from './queries';

/** What the loans desk says of the copies on a list, and of these. Slow, so that it is asked before anything is planned. */
export async function askLoansForList(
  { store, loans }: Services,
  list: number,
  how: { anew: boolean },
): Promise<LoanAnswers> {
  return loans.ask(await barcodesOnList(store, list), how);
}

/** The list with its verdicts as of now. */
export async function withdrawalList(services: Services, id: number): Promise<WithdrawalList> {
  return weighed(services.store, id, await askLoansForList(services, id, { anew: false }));
}

/** The list with verdicts made from what the loans desk said. */
export async function weighed(store: Store, id: number, said: LoanAnswers): Promise<WithdrawalList> {
  const list = await store.read('withdrawlist', id);
  if (!list) throw notFound(`Withdrawal list ${id}`);
  const scans = await scansOf(store, 'withdrawal', id);
  return {
    id,
    version: list.version,
    ...list.value,
    codes: scans.length,
    loansDesk: said.heard,
    verdicts: await weighScans(store, list, scans, said),
  };
}

/** The verdicts on a few codes of a list: weighed with all that the list has of their titles, and nothing else. */
export async function weighFew(
  store: Store,
  list: StoredObject<'withdrawlist'>,
  codes: readonly string[],
  said: LoanAnswers,
): Promise<WithdrawalRow[]> {
  const rows = await weighScans(store, list, await scansOfSameTitles(store, list.id, codes), said);
  const last = new Map(rows.map((r) => [r.code, r]));
  return codes.flatMap((code) => last.get(code) ?? []);
}

/** When a copy of this house is looked at twice. */
export const limitsOf = ({ withdrawals }: HouseRules): WithdrawalLimits => allLimits(withdrawals);

async function weighScans(
  store: Store,
  list: StoredObject<'withdrawlist'>,
  all: readonly ScanColumns[],
  said: LoanAnswers,
): Promise<WithdrawalRow[]> {
  const rows = withPulled(all);
  const scans = rows.map((r) => r.scan);
  const codes = [...new Set(scans.map((s) => s.code))];
  const house = (await store.house()).value;
  const limits = limitsOf(house);
  const facts = new Map((await copyFacts(store, codes)).map((f) => [f.barcode, f]));
  const records = [...new Set([...facts.values()].map((f) => f.recordId))];
  const { branches, locations } = (await store.lists()).value;
  const branchName = (code: string) => branches.find((b) => b.code === code)?.name ?? code;
  const locationName = (f: CopyFacts) =>
    locations.find((l) => l.code === f.location && l.branch === f.branch)?.name ?? f.location;
  const keptBy = await keptByField(store, records, limits.fields);
  const elsewhere = await onOtherLists(store, list.id, codes);
  const known = new Map(await unknownCodes(store, codes, facts));
  const listed = codes.map((code): Listed => {
    const f = facts.get(code);
    const { near: _, ...told } = known.get(code) ?? {};
    if (!f) return { code, candidate: null, ...told };
    return { code, candidate: candidateOf(f, said, locationName(f), keptBy, elsewhere) };
  });
  const of = new Map(listed.map((l) => [l.code, l]));
  const verdicts = weighWithdrawals(
    scans.map((s) => of.get(s.code)!),
    {
      ...{ branch: list.value.branch, branchName, limits, on: today() },
      counts: await countsOf(store, records, codes),
      currency: house.currency,
    },
  );
  return verdicts.map((v, i) => {
    const f = facts.get(v.code);
    return {
      ...v,
      candidate: v.candidate && shownCandidate(v.candidate),
      scan: scans[i]!.id,
      pulled: rows[i]!.pulled,
      near: [...(known.get(v.code)?.near ?? [])],
      ...{ callNumber: f?.callNumber ?? '', shelfKey: f?.shelfKey ?? '' },
      ...{ loans: f?.loans ?? null, lastLoan: f?.lastLoan ?? '' },
      place: f ? `${branchName(f.branch)}, ${locationName(f)}` : '',
    };
  });
}

/** What of a candidate a list shows. */
const shownCandidate = ({
  copyId,
  holdingId,
  recordId,
  title,
  branch,
  status,
  due,
  loan,
  price,
  currency,
}: Candidate): WithdrawalRow['candidate'] => ({
  ...{ copyId, holdingId, recordId, title, branch, status, due, loan, price },
  ...(currency && { currency }),
});

const candidateOf = (
  facts: CopyFacts,
  said: LoanAnswers,
  locationName: string,
  keptBy: ReadonlyMap<number, string>,
  elsewhere: ReadonlyMap<string, string>,
): Candidate => {
  const { copyId, holdingId, recordId, title, branch, location, status } = facts;
  const { barcode, price, currency, acquired, part } = facts;
  return {
    ...{ copyId, holdingId, recordId, title, branch, location, locationName, status, price, acquired, part },
    ...(currency && { currency }),
    due: dueOf(said.of(barcode)),
    loan: said.of(barcode).state,
    keptBy: keptBy.get(recordId) ?? '',
    onList: elsewhere.get(barcode) ?? '',
  };
};

/** A list of nothing but unknown codes is the wrong file: near ones are looked for only for the first of them. */
const MOST_HINTS = 50;

/** What is known of a code that no copy has. */
type KnownOf = Pick<Listed, 'hint' | 'withdrawnBefore'> & { readonly near?: readonly string[] };

/** What is known of codes that no copy has: withdrawn before, or nearly another one's. */
async function unknownCodes(
  store: Store,
  codes: readonly string[],
  facts: ReadonlyMap<string, CopyFacts>,
): Promise<(readonly [string, KnownOf])[]> {
  const unknown = codes.filter((code) => !facts.has(code));
  const gone = new Map(
    (unknown.length ? await store.find('withdrawn', { where: { barcode: unknown } }) : []).map((w) => [
      w.value.copy.barcode,
      w.value,
    ]),
  );
  let hints = MOST_HINTS;
  return Promise.all(
    codes.map(async (code) => {
      if (facts.has(code)) return [code, {}] as const;
      const before = gone.get(code);
      if (before)
        return [
          code,
          {
            withdrawnBefore: true,
            hint: `Withdrawn on ${before.withdrawnOn}: ${quoted(before.title)}.`,
          },
        ] as const;
      const near = hints-- > 0 ? (await nearBarcodes(store, code)).slice(0, 3) : [];
      return [
        code,
        near.length ? { near, hint: `Nearly the same: ${near.map(groupedBarcode).join(', ')}.` } : {},
      ] as const;
    }),
  );
}
