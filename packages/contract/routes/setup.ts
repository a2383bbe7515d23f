import { CHECK_RULES, ruleProblems, type BarcodeRule, type CheckRule } from '@osier/core/barcodes';
import { LAST_COPY, NO_LIMITS, type LastCopy } from '@osier/core/house';
import { MAY_STAND } from '@osier/core/stocktake';
import { array, boolean, mixed, object, type InferType } from 'yup';
import { flag, listOf, wordOf, orNull, shape, text, whole } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { code, line, price, version } from '../inputs';
import { doneSchema } from '../objects/acts';
import { callNumberRuleAnswer, callNumberRuleBody, prefixOrderBody } from '../objects/call-number-rules';
import { neighbourRulesAnswer, neighbourRulesBody } from '../objects/neighbour-rules';
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
/** How rules for barcodes fare with those that copies have. */
const rulesTried = shape({
  fit: whole(),
  of: whole(),
  /** The first that do not fit, with why. */
  not: listOf(shape({ code: text(), why: text() })),
});
export type RulesTried = ValueOf<typeof rulesTried>;
/** What some barcodes of the library look like. */
export const barcodeRuleBody = object({
  of: mixed<BarcodeRule['of']>().oneOf(['copy', 'reader']).required(),
  prefix: line(40).default(''),
  form: line(40).trim().uppercase().required('Write what stands behind the beginning.'),
  check: mixed<CheckRule>()
    .oneOf([...CHECK_RULES])
    .required(),
}).test('barcode rule', function (rule) {
  const [problem] = ruleProblems(rule);
  return problem
    ? this.createError({ path: `${this.path}.${problem.field}`, message: problem.message })
    : true;
});
const houseShape = {
  classDecimals: number().integer().min(0).max(12).required(),
  cutterLetters: number().integer().min(0).max(6).required(),
  droppedSubdivisions: array(line().required()).required(),
  protectedFields: array(
    string()
      .matches(/^[0-9][0-9.]{2}$/, 'Three digits, or a point for any digit.')
      .required(),
  ).required(),
  prefixOrder: prefixOrderBody,
  jumpLength: number().integer().min(2).max(200).required(),
  /** Statuses beside "available" whose copies are expected on the shelf. */
  standing: array(
    mixed<(typeof MAY_STAND)[number]>()
      .oneOf([...MAY_STAND])
      .required(),
  ).default([...MAY_STAND]),
  withdrawals: object({
    priceAbove: price().default(NO_LIMITS.priceAbove),
    youngerThan: number().integer().min(0).max(240).default(NO_LIMITS.youngerThan),
    locations: array(code().required()).default([]),
    fields: array(
      string()
        .matches(/^[0-9][0-9.]{2}$/, 'Three digits, or a point for any digit.')
        .required(),
    ).default([]),
    lastCopy: mixed<LastCopy>()
      .oneOf([...LAST_COPY])
      .default(NO_LIMITS.lastCopy),
    lastCopyAt: array(
      object({
        branch: code().required(),
        lastCopy: mixed<LastCopy>()
          .oneOf([...LAST_COPY])
          .required(),
      }).required(),
    ).default([]),
    reasons: array(line(200).trim().required())
      .max(100)
      .default([...NO_LIMITS.reasons]),
    tellLoansDesk: boolean().default(NO_LIMITS.tellLoansDesk),
  }),
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
  ...neighbourRulesBody,
  checksOff: array(line().required()).required(),
  barcodes: array(barcodeRuleBody).max(20, 'At most 20 rules for barcodes.').required(),
  callNumbers: array(callNumberRuleBody).max(40, 'At most 40 rules for call numbers.').default([]),
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
  barcodes: listOf(
    shape({ of: wordOf(['copy', 'reader']), prefix: text(), form: text(), check: wordOf(CHECK_RULES) }),
  ),
  callNumbers: listOf(callNumberRuleAnswer),
  prefixOrder: listOf(text()).optional(),
  jumpLength: whole(),
  standing: listOf(wordOf(MAY_STAND)).optional(),
  withdrawals: shape({
    priceAbove: orNull(whole()),
    youngerThan: whole(),
    locations: listOf(text()),
    fields: listOf(text()),
    lastCopy: wordOf(LAST_COPY),
    lastCopyAt: listOf(shape({ branch: text(), lastCopy: wordOf(LAST_COPY) })).optional(),
    reasons: listOf(text()).optional(),
    tellLoansDesk: flag().optional(),
  }).optional(),
  thesauri: listOf(text()),
  punctuation: wordOf(['kept', 'left out']),
  wordAfterArticle: wordOf(['small', 'capital', 'as it comes']),
  currency: text(),
  ...neighbourRulesAnswer,
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
  tryBarcodes: endpoint({
    method: 'post',
    path: '/set-up/barcodes/try',
    summary: 'Try rules for barcodes on those that the copies have',
    permission: 'look',
    body: object({ barcodes: array(barcodeRuleBody).max(20).required() }),
    answer: rulesTried,
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
