import type { CopyPart } from './mapping';
import { COPY_STATUSES, LOAN_RULES, type CodeLists, type CopyStatus, type LoanRule } from './objects';

/** What a copy need not have. */
export interface CopyDetails {
  readonly staffNote?: string;
  readonly condition?: string;
  /** ISO date. */
  readonly acquired?: string;
  readonly loanRule?: LoanRule;
}

/** A supplier of the list by code or name; null for another text, and for none. */
export const supplierCode = (text: string, { suppliers }: CodeLists): string | null =>
  suppliers.find((s) => s.code === text || s.name === text)?.code ?? null;

const isStatus = (text: string): text is CopyStatus => COPY_STATUSES.some((s) => s === text);
const isLoanRule = (text: string): text is LoanRule => LOAN_RULES.some((r) => r === text);

/** The status that a record says, where it is one of ours. */
export function statusOf(text: string, remarks: string[]): CopyStatus | null {
  const status = text.toLowerCase();
  if (text === '' || isStatus(status)) return isStatus(status) ? status : null;
  remarks.push(`“${text}” is not a status here, so it was not taken.`);
  return null;
}

/** A day as 876 $d and 541 $d have it: 20260302, or with marks between. */
function dayOf(text: string, remarks: string[]): string | undefined {
  if (text === '') return undefined;
  const [, year, month, day] = /^(\d{4})\D?(\d\d)\D?(\d\d)$/.exec(text) ?? [];
  const written = `${year}-${month}-${day}`;
  const time = Date.parse(`${written}T00:00:00Z`);
  if (!Number.isNaN(time) && new Date(time).toISOString().startsWith(written)) return written;
  remarks.push(`“${text}” is not a day (as 20261128), so it was not taken.`);
  return undefined;
}

/** What a copy need not have: only what the record says of it. */
export function detailsOf(read: (name: CopyPart) => string, remarks: string[]): CopyDetails {
  const [staffNote, condition, written] = [read('staffNote'), read('condition'), read('loanRule')];
  const rule = written.toLowerCase();
  const acquired = dayOf(read('acquired'), remarks);
  if (rule !== '' && !isLoanRule(rule))
    remarks.push(`“${written}” is not a loan rule here, so it was not taken.`);
  return {
    ...(staffNote && { staffNote }),
    ...(condition && { condition }),
    ...(acquired && { acquired }),
    ...(isLoanRule(rule) && rule !== 'lends' && { loanRule: rule }),
  };
}
