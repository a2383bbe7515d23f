import { codeMeaning, fieldCodes, type FieldDefinition } from '../format';

const MOST = 50_000;
const judged = new Map<string, boolean>();

/**
 * Whether tag, indicators and subfield codes of a field are all as the format has them now: defined, none repeated that
 * is not repeatable, nothing obsolete. The same few thousand shapes come again and again, so that each is judged once.
 * `of` is what the definition was found by (format and tag).
 */
export function hasSoundShape(
  of: string,
  definition: FieldDefinition | undefined,
  ind1: string,
  ind2: string,
  codes: string,
): boolean {
  const key = `${of}${ind1}${ind2}${codes}`;
  let sound = judged.get(key);
  if (sound === undefined) {
    sound = definition !== undefined && judge(definition, ind1, ind2, codes);
    if (judged.size < MOST) judged.set(key, sound);
  }
  return sound;
}

function judge(definition: FieldDefinition, ind1: string, ind2: string, codes: string): boolean {
  const { defined, single } = fieldCodes(definition);
  let seen = '';
  for (const code of codes) {
    if (!defined.includes(code) || (single.includes(code) && seen.includes(code))) return false;
    seen += code;
  }
  return [ind1, ind2].every((value, k) => {
    const known = definition.indicators?.[k];
    return known ? codeMeaning(value, known.values) !== undefined : value === ' ';
  });
}
