import { fieldCodes, type FieldDefinition } from '../format';
import type { DataField } from '../marc';
import type { Memory } from '../text';

/** What the format has of a field, by the characters of ASCII. */
interface Shape {
  /** 0 for no such subfield, 1 for one that is not repeatable, 2 for one that is. */
  readonly codes: Uint8Array;
  /** 1 for a value that the indicator has. */
  readonly ind1: Uint8Array;
  readonly ind2: Uint8Array;
}

const ASCII = 128;

/**
 * Whether indicators and subfield codes of a field are all as the format has them now: defined, none repeated that is not
 * repeatable, nothing obsolete. A field that the format does not define is not.
 */
export function hasSoundShape(
  known: Memory,
  definition: FieldDefinition | undefined,
  field: DataField,
): boolean {
  if (!definition) return false;
  const shape = known.of(shapeOf, definition);
  if (!isIn(shape.ind1, field.ind1) || !isIn(shape.ind2, field.ind2)) return false;
  const { subfields } = field;
  for (let i = 0; i < subfields.length; i++) {
    const { code } = subfields[i]!;
    const standing = code.length === 1 ? shape.codes[code.charCodeAt(0)] : 0;
    if (!standing) return false;
    if (standing === 1) for (let k = 0; k < i; k++) if (subfields[k]!.code === code) return false;
  }
  return true;
}

const isIn = (values: Uint8Array, value: string) => value.length === 1 && values[value.charCodeAt(0)] === 1;

function shapeOf(definition: FieldDefinition): Shape {
  const { defined, single } = fieldCodes(definition);
  const codes = new Uint8Array(ASCII);
  for (const code of defined) codes[code.charCodeAt(0)] = single.includes(code) ? 1 : 2;
  const [ind1, ind2] = [0, 1].map((which) => valuesOf(definition.indicators?.[which]?.values));
  return { codes, ind1: ind1!, ind2: ind2! };
}

/** The values of an indicator; only a blank for one that is not defined. Values are single characters and ranges (`0-9`). */
function valuesOf(known: Readonly<Record<string, string>> | undefined): Uint8Array {
  const values = new Uint8Array(ASCII);
  for (const value of known ? Object.keys(known) : [' ']) {
    const range = value.length === 3 && value[1] === '-';
    if (value.length === 1) values[value.charCodeAt(0)] = 1;
    if (range) values.fill(1, value.charCodeAt(0), value.charCodeAt(2) + 1);
  }
  return values;
}
