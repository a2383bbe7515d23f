import { counted } from '@osier/core/changes';
import { sumText } from '@osier/core/holdings';
import type { ChangeSet } from '@osier/core/kinds';
import type { Store } from '../store/store';
import { soleHeadings } from './counts';

/** Names of headings that are told one by one. */
const NAMED = 3;

/** What goes with withdrawn copies, in sentences: by branch and class, at what price, holdings, records, headings. */
export async function whatGoesWith(store: Store, changes: ChangeSet): Promise<string[]> {
  const register = changes.flatMap((c) => (c.kind === 'withdrawn' && c.after ? [c.after] : []));
  const gone = (kind: string) => changes.filter((c) => c.kind === kind && c.after === null);
  const { branches } = (await store.lists()).value;
  const { currency } = (await store.house()).value;
  const said = [
    `By branch: ${tally(register.map((w) => branches.find((b) => b.code === w.branch)?.name ?? w.branch))}.`,
    `By class: ${tally(register.map((w) => classOf(w.callNumber)))}.`,
  ];
  const cost = sumText(
    register.map((w) => w.copy),
    currency,
  );
  if (cost) {
    const unpriced = register.filter((w) => w.copy.price === null).length;
    said.push(
      `They cost ${cost} together${unpriced ? `; of ${counted(unpriced, 'copy', 'copies')} no price is known` : ''}.`,
    );
  }
  const holdings = gone('holding').length;
  if (holdings)
    said.push(
      `${counted(holdings, 'holding')} will be deleted, because no copy is left on ${holdings === 1 ? 'it' : 'them'}.`,
    );
  const records = gone('record').map((c) => c.id);
  const last = new Set(register.filter((w) => w.lastCopy).map((w) => w.record)).size;
  const union = 'The union catalogue must be told.';
  if (records.length)
    said.push(
      `${counted(records.length, 'record')} will leave the catalogue: the last copy anywhere goes. ${union}`,
    );
  else if (last) {
    const how = changes.some((c) => c.kind === 'suppressed') ? 'suppressed from the public' : 'with a note';
    said.push(`${counted(last, 'record')} will stay without copies, ${how}. ${union}`);
  }
  const headings = [...(await soleHeadings(store, records)).values()].flat();
  if (headings.length)
    said.push(
      `${counted(headings.length, 'heading')} will be in no record any more: ${headings.slice(0, NAMED).join('; ')}${headings.length > NAMED ? ' …' : ''}.`,
    );
  return said;
}

/** "746 (12), 623 (3)": the commonest first. */
function tally(names: readonly string[]): string {
  const counts = new Map<string, number>();
  for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
  const sorted = [...counts].sort((a, b) => b[1] - a[1] || a[0].localeCompare(b[0]));
  const shown = sorted.slice(0, 8).map(([name, n]) => `${name} (${n})`);
  return shown.join(', ') + (sorted.length > shown.length ? ` and ${sorted.length - shown.length} more` : '');
}

/** The class of a call number as it is counted: its three digits, its letters, else its first word. */
const classOf = (callNumber: string): string =>
  /\b(\d{3})\b/.exec(callNumber)?.[1] ??
  /^[A-Z]{1,3}(?=\s*\d)/.exec(callNumber)?.[0] ??
  (callNumber.split(' ')[0] || 'no class');
