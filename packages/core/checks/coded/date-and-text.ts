import { look, setPositions, type Check } from '../finding';
import { inControl, subfieldsOf, type RecordView } from '../view';

export const dateAgainstText: Check = {
  rule: 'date-and-text',
  title: 'Date in 008 and in 264 or 260 differ',
  group: 'Coded fields',
  source: 'MARC 21, 008/07-10 and 264 $c',
  run(view, tell) {
    const fixed = view.control('008');
    const date = fixed?.value.slice(7, 11) ?? '';
    if (!fixed || !/^\d{4}$/.test(date)) return;
    const written = publicationDates(view);
    if (written.some((t) => t.includes(date))) return;
    const years = written.flatMap((t) => t.match(/\d{4}/g) ?? []);
    const inText = written.join(' ');
    if (years.length === 0 || years.includes(date) || coversDecade(inText, date)) return;
    if (!'stmr'.includes(fixed.value[6]!)) return;
    const only = new Set(years).size === 1 && fixed.value[6] === 's' ? years[0]! : null;
    tell({
      severity: 'warning',
      where: inControl('008', fixed.at, 7, 11),
      message: `Date 1 of 008 is ${date}; the publication statement has “${inText}”.`,
      ...(only && { fix: look(`Put ${only} into 008`, setPositions('008', fixed, 7, only)) }),
    });
  },
};

/** Dates of publication as written: 264 of any kind, 260 $c and $g. */
export function publicationDates(view: RecordView): string[] {
  const dates: string[] = [];
  for (const tag of ['264', '260'])
    for (const p of view.tagged(tag)) for (const s of subfieldsOf(p, 'cg')) dates.push(s.value);
  return dates;
}

/** `[199-?]` and `between 1990 and 1999` cover more than they spell. */
function coversDecade(text: string, date: string): boolean {
  for (const [, start] of text.matchAll(/\b(\d{2,3})-{1,2}(?!\d)/g)) if (date.startsWith(start!)) return true;
  const between = /(\d{4})\D+(\d{4})/.exec(text);
  return between !== null && date >= between[1]! && date <= between[2]!;
}
