import type { MarcRecord } from '@osier/core/marc';
import { mixed } from 'yup';
import { eitherOf, listOf, wordOf, shape, text, whole, amount, flag } from '../answers';

const subfield = shape({ code: text(), value: text() });
const controlField = shape({ tag: text(), value: text() });
const dataField = shape({ tag: text(), ind1: text(), ind2: text(), subfields: listOf(subfield) });
/** A control field or a data field. */
export const fieldSchema = eitherOf(controlField, dataField);

/** A record: leader and fields in the order of the directory. */
export const marcSchema = shape({ leader: text(), fields: listOf(fieldSchema) });

const where = shape({
  field: whole(),
  tag: text(),
  occurrence: whole(),
  subfield: whole().optional(),
  code: text().optional(),
  start: whole().optional(),
  end: whole().optional(),
});
const edit = eitherOf(
  shape({ op: wordOf(['leader']), leader: text() }),
  shape({ op: wordOf(['insert', 'replace']), at: whole(), field: fieldSchema }),
  shape({ op: wordOf(['remove']), at: whole() }),
  shape({ op: wordOf(['text']), at: whole(), subfield: whole(), value: text() }),
);
/** How grave a finding is. */
export const severity = () => wordOf(['error', 'warning', 'advice']);
/** What a check found in a record, with the edits that mend it. */
export const findingSchema = shape({
  rule: text(),
  severity: severity(),
  where,
  message: text(),
  fix: shape({ sentence: text(), safe: flag(), edits: listOf(edit) })
    .optional()
    .default(undefined),
});

/** The parts of it. */
export const briefParts = {
  title: text(),
  author: text(),
  year: text(),
  isbn: text(),
  publisher: text(),
  edition: text(),
  language: text(),
  material: text(),
};
/** Title, author, year and so on of a record. */
export const briefSchema = shape(briefParts);

/** What was repaired while a record was read; bytes that belong to no field as base64. */
export const repairSchema = shape({
  code: text(),
  offset: whole(),
  message: text(),
  repaired: flag(),
  bytes: text().optional(),
});

/** Why two records may be one. */
export const matchSchema = shape({
  record: whole(),
  strength: amount(),
  sure: flag(),
  points: listOf(
    shape({ by: wordOf(['control', 'lccn', 'isbn', 'issn', 'number', 'likeness']), said: text() }),
  ),
  doubts: listOf(text()),
  likeness: amount(),
});
/** How like two records are, 0 to 100, and by what. */
export const likenessSchema = shape({
  score: amount(),
  parts: listOf(
    shape({
      name: wordOf(['title', 'author', 'year', 'publisher', 'pages', 'format', 'edition']),
      like: amount(),
      weight: amount(),
      said: text(),
    }),
  ),
});

/** A side of a review or of an entry: anything that was stored. */
export const storedSchema = mixed<object>()
  .nullable()
  .defined()
  .meta({ jsonSchema: { description: 'As it is stored; null where there was nothing.' } });

/** The record that a stored value is, or holds: of a heading, or the fields of an incoming record. Null where there is none. */
export function recordIn(value: unknown): MarcRecord | null {
  if (marcSchema.isValidSync(value)) return value;
  const within = typeof value === 'object' && value !== null && 'marc' in value ? value.marc : null;
  return marcSchema.isValidSync(within) ? within : null;
}
