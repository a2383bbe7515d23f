import { fieldDefinition, type PositionDefinition } from './definitions';

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

function definitions(tag: string, leader: string, value: string): PositionDefinition[] {
  const by = fieldDefinition(tag)?.positions;
  if (!by) return [];
  const own =
    tag === 'LDR'
      ? by.all
      : tag === '007'
        ? (by[CATEGORY_007[value[0] ?? ''] ?? ''] ?? by.Common)
        : [...(by['All Materials'] ?? []), ...(tag === '008' ? (by[materialOf(leader)] ?? []) : [])];
  return [...(own ?? [])].sort((a, b) => a.from - b.from);
}

/** The labelled positions of LDR, 006, 007 or 008 with their values and meanings, in order. */
export function readPositions(tag: string, value: string, leader: string): PositionReading[] {
  return definitions(tag, leader, value).map(({ from, to, name, codes }) => {
    const part = value.slice(from, to);
    return {
      from,
      to,
      name,
      value: part,
      meaning: codes[part] ?? codes[part.replaceAll(' ', '#')] ?? eachMeaning(part, codes),
    };
  });
}

function eachMeaning(part: string, codes: Readonly<Record<string, string>>): string | undefined {
  const known = [...part.trimEnd()].map((c) => codes[c]).filter(Boolean);
  return part.length > 1 && known.length ? known.join(', ') : undefined;
}
