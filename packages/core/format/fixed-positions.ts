import { codeName } from './codes';
import { codeMeaning, DEFINED_FIELDS, formatOf, type Format, type PositionDefinition } from './definitions';

/** One fixed position read in words. */
export interface PositionReading {
  readonly from: number;
  readonly to: number;
  readonly name: string;
  readonly value: string;
  readonly meaning: string | undefined;
}

/** The 008 configuration that leader/06 and /07 choose (MARC 21, 008 All materials). */
export function materialOf(leader: string): string {
  const type = leader[6] ?? 'a';
  const level = leader[7] ?? 'm';
  if (type === 'a' || type === 't')
    return type === 'a' && 'bis'.includes(level) ? 'Continuing Resources' : 'Books';
  if (type === 'm') return 'Computer Files';
  if (type === 'e' || type === 'f') return 'Maps';
  if ('cdij'.includes(type)) return 'Music';
  if ('gkor'.includes(type)) return 'Visual Materials';
  return 'Mixed Materials';
}

const CATEGORY_007: Record<string, string> = {
  a: 'Map',
  c: 'Electronic resource',
  d: 'Globe',
  f: 'Tactile material',
  g: 'Projected graphic',
  h: 'Microform',
  k: 'Nonprojected graphic',
  m: 'Motion picture',
  o: 'Kit',
  q: 'Notated music',
  r: 'Remote-sensing image',
  s: 'Sound recording',
  t: 'Text',
  v: 'Videorecording',
  z: 'Unspecified',
};

/** Lengths of 007 by its first character; where two are given both are in use (MARC 21, 007). */
export const LENGTH_007: Readonly<Record<string, readonly number[]>> = {
  a: [8],
  c: [6, 14],
  d: [6],
  f: [10],
  g: [9],
  h: [13],
  k: [6],
  m: [8, 23],
  o: [2],
  q: [2],
  r: [11],
  s: [14],
  t: [2],
  v: [9],
  z: [2],
};

/** The 006 and 008 configuration that the first character of 006 chooses. */
const materialOf006 = (form: string) =>
  form === 's' ? 'Continuing Resources' : materialOf(`00000n${form}m`);

/** The positions of a fixed field by what chooses among them: a category of material, or `all`. */
type Layouts = Readonly<Record<string, readonly PositionDefinition[]>>;

/** The fixed fields of each format, each layout put together from what the format gives for all materials and for one. */
const LAYOUTS = Object.fromEntries(
  Object.entries(DEFINED_FIELDS).map(([format, fields]) => [
    format,
    Object.fromEntries(
      Object.entries(fields).flatMap(([tag, { positions }]) =>
        positions ? [[tag, layoutsOf(tag, positions)]] : [],
      ),
    ),
  ]),
) as Record<Format, Readonly<Record<string, Layouts>>>;

function layoutsOf(tag: string, positions: Layouts): Layouts {
  const common = tag === '007' ? [] : (positions['All Materials'] ?? []);
  return Object.fromEntries(
    Object.entries(positions).map(([kind, own]) => [
      kind,
      [...(kind === 'all' ? own : [...common, ...own])].sort((a, b) => a.from - b.from),
    ]),
  );
}

/** Every position of LDR, 006, 007 or 008 that the format defines for this kind of record, in order. */
export function positionsOf(tag: string, value: string, leader: string): readonly PositionDefinition[] {
  const format = formatOf(leader);
  const layouts = LAYOUTS[format][tag];
  if (!layouts) return [];
  const kind =
    tag === '007'
      ? (CATEGORY_007[value[0] ?? ''] ?? 'Common')
      : tag === '006'
        ? materialOf006(value[0] ?? 'a')
        : tag === '008' && format === 'bibliographic'
          ? materialOf(leader)
          : 'all';
  return layouts[kind] ?? layouts.Common ?? layouts['All Materials'] ?? [];
}

/** Places of 006, 007 or 008 that the format leaves undefined and in which more stands than a blank or a fill character. */
export function filledUndefined(tag: string, value: string, leader: string): number[] {
  const positions = positionsOf(tag, value, leader);
  const last = positions.at(-1);
  if (tag === 'LDR' || !last) return [];
  const found: number[] = [];
  // The first place of 006 and 007 is the category.
  for (let at = tag === '008' ? 0 : 1; at < Math.min(value.length, last.to); at++)
    if (!' |'.includes(value[at]!) && !positions.some((p) => p.from <= at && at < p.to)) found.push(at);
  return found;
}

/** The labelled positions of LDR, 006, 007 or 008 with their values and meanings, in order. */
export function readPositions(tag: string, value: string, leader: string): PositionReading[] {
  return positionsOf(tag, value, leader).map((definition) => {
    const part = value.slice(definition.from, definition.to);
    return {
      from: definition.from,
      to: definition.to,
      name: definition.name,
      value: part,
      meaning: positionMeaning(part, definition),
    };
  });
}

/** What stands at a position in words; undefined when the format does not define it. */
export function positionMeaning(part: string, definition: PositionDefinition): string | undefined {
  const { name, codes, unit } = definition;
  if (Object.keys(codes).length === 0) {
    if (name === 'Language') return codeName('languages', part);
    return name.startsWith('Place of publication') ? codeName('countries', part.trim()) : undefined;
  }
  const whole = codeMeaning(part, codes) ?? (part.trim() === '' ? codes['#'] : undefined);
  if (whole !== undefined) return whole;
  if (!unit) return undefined;
  const known = new Set<string>();
  for (let i = 0; i < part.length; i += unit) {
    const code = part.slice(i, i + unit);
    const meaning = codeMeaning(code, codes);
    if (meaning !== undefined && code.trim() !== '') known.add(meaning);
  }
  return known.size ? [...known].join(', ') : codes[' '.repeat(unit)];
}

/** A code at a fixed position that MARC 21 does not define. */
export interface UndefinedCode {
  readonly code: string;
  readonly obsolete: boolean;
}

/** Which codes at a position the format does not define, and whether it once did. The fill character is allowed. */
export function undefinedCodes(
  part: string,
  { codes, obsolete, unit }: PositionDefinition,
): readonly UndefinedCode[] {
  if (Object.keys(codes).length === 0 || /^\|+$/.test(part)) return [];
  if (codeMeaning(part, codes) !== undefined) return [];
  const step = unit ?? part.length;
  const found: UndefinedCode[] = [];
  for (let i = 0; i < part.length; i += step) {
    const code = part.slice(i, i + step);
    if (codeMeaning(code, codes) !== undefined || code.trim() === '' || /^\|+$/.test(code)) continue;
    if (!found.some((f) => f.code === code))
      found.push({ code, obsolete: obsolete !== undefined && codeMeaning(code, obsolete) !== undefined });
  }
  return found;
}
