import { array, mixed, object, type InferType } from 'yup';
import { listOf, wordOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { code, line, version } from '../inputs';
import { doneSchema } from '../objects/acts';
import { number, string } from '../values';
import { personRow } from './people';

/** The version that somebody saw. */
export const versionBody = object({ version: version() });

const coded = (what: string) => ({
  code: line(60).trim().required(`${what} needs a code.`),
  name: line().required(`${what} needs a name.`),
});
const listsShape = {
  branches: array(
    object({
      code: code().required('A branch needs a code.'),
      name: line().required('A branch needs a name.'),
    }),
  ).required(),
  locations: array(
    object({
      code: code().required('A location needs a code.'),
      name: line().required('A location needs a name.'),
      branch: code().required('A location needs a branch.'),
    }),
  ).required(),
  types: array(
    object({
      code: code().required('A type needs a code.'),
      name: line().required('A type needs a name.'),
      price: number().integer().min(0).nullable().default(null),
    }),
  ).required(),
  funds: array(object(coded('A fund'))).required(),
  suppliers: array(object(coded('A supplier'))).required(),
};
/** The code lists. */
export const listsSchema = object(listsShape);
/** The code lists that are saved. */
export const listsBody = object({ version: version(), ...listsShape });
export type ListsBody = InferType<typeof listsBody>;
const houseShape = {
  classDecimals: number().integer().min(0).max(12).required(),
  cutterLetters: number().integer().min(0).max(6).required(),
  droppedSubdivisions: array(line().required()).required(),
  protectedFields: array(
    string()
      .matches(/^[0-9][0-9.]{2}$/, 'Three digits, or a point for any digit.')
      .required(),
  ).required(),
  jumpLength: number().integer().min(2).max(200).required(),
  thesauri: array(
    string()
      .matches(/^[a-z0-9/-]+$/, 'A code of 6XX $2, such as lcsh: small letters.')
      .required(),
  ).required(),
  currency: string()
    .matches(/^[A-Z]{3}$/, 'Three capitals (ISO 4217), such as GBP.')
    .default('GBP'),
  punctuation: mixed<'kept' | 'left out'>().oneOf(['kept', 'left out']).required(),
  wordAfterArticle: mixed<'small' | 'capital' | 'as it comes'>()
    .oneOf(['small', 'capital', 'as it comes'])
    .default('small'),
  checksOff: array(line().required()).required(),
  barcode: object({
    length: number().integer().min(4).max(20).required(),
    kind: string().matches(/^\d?$/, 'One digit.').defined(),
    library: string().matches(/^\d*$/, 'Digits only.').defined(),
  }).required(),
};
/** The house rules. */
export const houseSchema = object(houseShape);
/** The house rules that are saved. */
export const houseBody = object({ version: version(), ...houseShape });
export type HouseBody = InferType<typeof houseBody>;

const codedRow = { code: text(), name: text() };
const lists = shape({
  branches: listOf(shape(codedRow)),
  locations: listOf(shape({ ...codedRow, branch: text() })),
  types: listOf(shape({ ...codedRow, price: orNull(whole()) })),
  funds: listOf(shape(codedRow)),
  suppliers: listOf(shape(codedRow)),
});
const house = shape({
  classDecimals: whole(),
  cutterLetters: whole(),
  droppedSubdivisions: listOf(text()),
  protectedFields: listOf(text()),
  barcode: shape({ length: whole(), kind: text(), library: text() }),
  jumpLength: whole(),
  thesauri: listOf(text()),
  punctuation: wordOf(['kept', 'left out']),
  wordAfterArticle: wordOf(['small', 'capital', 'as it comes']),
  currency: text(),
  checksOff: listOf(text()),
});
const setUp = shape({
  lists: shape({ version: whole(), value: lists }),
  house: shape({ version: whole(), value: house }),
  people: listOf(personRow),
  checks: listOf(
    shape({
      rule: text(),
      title: text(),
      group: wordOf([
        'Structure',
        'Characters',
        'Numbers',
        'Coded fields',
        'Title',
        'Publication and description',
        'Names',
        'Subjects',
        'Series',
        'Links',
        'Classification and holdings',
      ]),
      source: text(),
    }),
  ),
});
/** Lists, rules, people and checks as they are set up. */
export type SetUp = ValueOf<typeof setUp>;

/** Code lists and house rules. */
export const setupApi = {
  read: endpoint({
    method: 'get',
    path: '/set-up',
    summary: 'Code lists, house rules, people, checks',
    permission: 'look',
    answer: setUp,
  }),
  saveLists: endpoint({
    method: 'put',
    path: '/set-up/lists',
    summary: 'Save the code lists',
    permission: 'set up',
    body: listsBody,
    answer: doneSchema,
  }),
  saveHouse: endpoint({
    method: 'put',
    path: '/set-up/house',
    summary: 'Save the house rules',
    permission: 'set up',
    body: houseBody,
    answer: doneSchema,
  }),
};
