import type { StockFinding } from '@osier/core/stocktake';
import type { Reckoned } from '../stocktake/reckon-order';
import { keptJson } from '../store/kept-json';

/** Findings in one text. */
const IN_A_TEXT = 1000;

/** A finding as it is kept: its place is among those of its kind. */
type KeptRow = readonly [kind: string, code: string, place: number, detail: string];

/** What of the findings is to be kept anew or taken away, against what is kept. */
export function findingChanges(
  kept: readonly string[],
  findings: readonly StockFinding[],
): Pick<Reckoned, 'found' | 'goneFindings' | 'newFindings'> {
  const before = new Map<string, KeptRow>();
  for (const text of kept)
    for (const row of keptJson<KeptRow[]>(text)) before.set(keyOf(row[0], row[1]), row);
  const places = new Map<string, number>();
  const [found, fresh]: [string[], KeptRow[]] = [[], []];
  for (const finding of findings) {
    const { kind, code } = finding;
    const place = places.get(kind) ?? 0;
    places.set(kind, place + 1);
    const detail = JSON.stringify(finding);
    const known = before.get(keyOf(kind, code));
    before.delete(keyOf(kind, code));
    if (!known && kind === 'found') found.push(code);
    if (known?.[2] !== place || known[3] !== detail) fresh.push([kind, code, place, detail]);
  }
  const gone = [...before.values()].map(([kind, code]) => [kind, code] as const);
  return { found, goneFindings: inTexts(gone), newFindings: inTexts(fresh) };
}

const keyOf = (kind: string, code: string): string => `${kind} ${code}`;

function inTexts(rows: readonly unknown[]): string[] {
  const texts: string[] = [];
  for (let at = 0; at < rows.length; at += IN_A_TEXT)
    texts.push(JSON.stringify(rows.slice(at, at + IN_A_TEXT)));
  return texts;
}
