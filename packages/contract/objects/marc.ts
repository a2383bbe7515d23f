import { mixed } from 'yup';
import { eitherOf, listOf, oneOf, shape, text, whole, amount, flag } from '../answers';

const subfield = shape({ code: text(), value: text() });
const controlField = shape({ tag: text(), value: text() });
const dataField = shape({ tag: text(), ind1: text(), ind2: text(), subfields: listOf(subfield) });
/** A control field or a data field. */
export const field = eitherOf(controlField, dataField);

/** A record: leader and fields in the order of the directory. */
export const marc = shape({ leader: text(), fields: listOf(field) });

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
  shape({ op: oneOf(['leader']), leader: text() }),
  shape({ op: oneOf(['insert', 'replace']), at: whole(), field }),
  shape({ op: oneOf(['remove']), at: whole() }),
  shape({ op: oneOf(['text']), at: whole(), subfield: whole(), value: text() }),
);
/** How grave a finding is. */
export const severity = () => oneOf(['error', 'warning', 'advice']);
/** What a check found in a record, with the edits that mend it. */
export const finding = shape({
  rule: text(),
  severity: severity(),
  where,
  message: text(),
  fix: shape({ sentence: text(), safe: flag(), edits: listOf(edit) })
    .optional()
    .default(undefined),
});

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
export const brief = shape(briefParts);

/** What was repaired while a record was read; bytes that belong to no field as base64. */
export const repair = shape({
  code: text(),
  offset: whole(),
  message: text(),
  repaired: flag(),
  bytes: text().optional(),
});

/** Why two records may be one. */
export const match = shape({
  record: whole(),
  strength: amount(),
  sure: flag(),
  points: listOf(
    shape({ by: oneOf(['control', 'lccn', 'isbn', 'issn', 'number', 'likeness']), said: text() }),
  ),
  doubts: listOf(text()),
  likeness: amount(),
});
/** How like two records are, 0 to 100, and by what. */
export const likeness = shape({
  score: amount(),
  parts: listOf(
    shape({
      name: oneOf(['title', 'author', 'year', 'publisher', 'pages', 'format', 'edition']),
      like: amount(),
      weight: amount(),
      said: text(),
    }),
  ),
});

/** A side of a review or of an entry: anything that was stored. */
export const stored = mixed<object>()
  .nullable()
  .defined()
  .meta({ jsonSchema: { description: 'As it is stored; null where there was nothing.' } });
