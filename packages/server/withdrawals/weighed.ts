import type { WithdrawalList } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { dueOf } from '@osier/core/holdings';
import { weighWithdrawals, type Candidate, type CopyCounts, type Listed } from '@osier/core/withdrawals';
import { nearBarcodes } from '../catalogue/search';
import { quoted } from '@osier/core/acts';
import { notFound } from '../http/problem';
import type { LoanAnswers } from '../loans/ports';
import { scansOf } from '../scanner/scans';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { barcodesOnList, branchesOfCopies, copyFacts, type CopyFacts } from './queries';

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

const MOST_HINTS = 50;

const candidateOf = (
  { copyId, holdingId, recordId, title, branch, status, barcode }: CopyFacts,
  said: LoanAnswers,
): Candidate => ({
  ...{ copyId, holdingId, recordId, title, branch, status },
  due: dueOf(said.of(barcode)),
  loan: said.of(barcode).state,
});

/** The list with verdicts made from what the loans desk said. */
export async function weighed(store: Store, id: number, said: LoanAnswers): Promise<WithdrawalList> {
  const list = await store.read('withdrawlist', id);
  if (!list) throw notFound(`Withdrawal list ${id}`);
  const scans = await scansOf(store, 'withdrawal', id);
  const codes = [...new Set(scans.map((s) => s.code))];
  const facts = new Map((await copyFacts(store, codes)).map((f) => [f.barcode, f]));
  const gone = new Map(
    (codes.length ? await store.find('withdrawn', { where: { barcode: codes } }) : []).map((w) => [
      w.value.copy.barcode,
      w.value,
    ]),
  );
  const counts = await copyCounts(store, [...new Set([...facts.values()].map((f) => f.recordId))]);
  const lists = (await store.lists()).value;
  // A list of nothing but unknown codes is the wrong file: near ones are looked for only for the first of them.
  let hints = MOST_HINTS;
  const listed = await Promise.all(
    scans.map(async ({ code }): Promise<Listed> => {
      const f = facts.get(code);
      if (f) return { code, candidate: candidateOf(f, said) };
      const before = gone.get(code);
      if (before)
        return {
          code,
          candidate: null,
          withdrawnBefore: true,
          hint: `Withdrawn on ${before.withdrawnOn}: ${quoted(before.title)}.`,
        };
      const near = hints-- > 0 ? await nearBarcodes(store, code) : [];
      return {
        code,
        candidate: null,
        hint: near.length
          ? `Nearly the same: ${near.slice(0, 3).map(groupedBarcode).join(', ')}.`
          : undefined,
      };
    }),
  );
  const branchName = (code: string) => lists.branches.find((b) => b.code === code)?.name ?? code;
  const verdicts = weighWithdrawals(listed, list.value.branch, (c) => counts(c), branchName);
  const place = (f: CopyFacts | undefined) =>
    f
      ? `${branchName(f.branch)}, ${lists.locations.find((l) => l.code === f.location)?.name ?? f.location}`
      : '';
  return {
    id,
    version: list.version,
    ...list.value,
    codes: scans.length,
    loansDesk: said.heard,
    verdicts: verdicts.map((v, i) => ({
      ...v,
      scan: scans[i]!.id,
      callNumber: facts.get(v.code)?.callNumber ?? '',
      place: place(facts.get(v.code)),
    })),
  };
}

async function copyCounts(store: Store, records: readonly number[]): Promise<(c: Candidate) => CopyCounts> {
  const rows = await branchesOfCopies(store, records);
  return (c) => {
    const all = rows.filter((r) => r.record === c.recordId);
    return {
      anywhere: all.length,
      atBranch: all.filter((r) => r.branch === c.branch).length,
    };
  };
}
