import { loanAnswers, type LoanAnswers, type LoansDesk } from './ports';

/** So long a scan waits for the loans desk, in milliseconds; a slow desk is heard later, with the whole. */
const LOAN_PATIENCE = 400;
const NOT_KNOWN = { state: 'not known', due: '' } as const;

/** What the loans desk says of some copies at once; of a slow one nothing is known. */
export async function askSoon(loans: LoansDesk, barcodes: readonly string[]): Promise<LoanAnswers> {
  const silence = new Promise<null>((resolve) => setTimeout(() => resolve(null), LOAN_PATIENCE).unref());
  const said = await Promise.race([loans.ask(barcodes), silence]);
  return said ?? loanAnswers(new Map(barcodes.map((code) => [code, NOT_KNOWN])));
}
