import { codeMeaning, fieldCodes, type FieldDefinition } from '../format';
import type { DataField } from '../marc';

/** What the format has of a field, by the characters of ASCII. */
interface Shape {
  /** 0 for no such subfield, 1 for one that is not repeatable, 2 for one that is. */
  readonly codes: Uint8Array;
  /** 1 for a value that the indicator has. */
  readonly ind1: Uint8Array;
  readonly ind2: Uint8Array;
}

const ASCII = 128;
const shapes = new Map<FieldDefinition, Shape>();

/**
 * Whether indicators and subfield codes of a field are all as the format has them now: defined, none repeated that is not
 * repeatable, nothing obsolete. A field that the format does not define is not.
 */
export function hasSoundShape(definition: FieldDefinition | undefined, field: DataField): boolean {
  if (!definition) return false;
  let shape = shapes.get(definition);
  if (!shape) shapes.set(definition, (shape = shapeOf(definition)));
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
  const [ind1, ind2] = [0, 1].map((which) => {
    const known = definition.indicators?.[which];
    return Uint8Array.from({ length: ASCII }, (_, c) => {
      const value = String.fromCharCode(c);
      return (known ? codeMeaning(value, known.values) !== undefined : value === ' ') ? 1 : 0;
    });
  });
  return { codes, ind1: ind1!, ind2: ind2! };
}
