import type { Scheme } from '@osier/core/callnumbers';
import { COPY_PARTS, COPY_STATUSES, type CopyStatus } from '@osier/core/holdings';
import type { FileFormat } from '@osier/core/marc';
import { OUTCOMES, POINTS, type Outcome, type PointKind } from '@osier/core/matching';
import type { PiledKind } from '@osier/core/piles';
import { array, boolean, mixed, object, type InferType } from 'yup';
import { ROLES } from './permissions';
import { isCommon } from './common-passwords';
import { isoDay, number, string } from './values';

const id = () => number().integer().positive();
const text = (most = 200) => string().max(most, `At most ${most} characters.`);
const code = () => string().max(20).matches(/^\S*$/, 'A code has no blanks.');

const password = () =>
  string()
    .min(12, 'A password has at least 12 characters.')
    .max(200, 'At most 200 characters.')
    .test(
      'not common',
      'This password is one of the first that are tried. Choose another one.',
      (v) => !isCommon(v),
    );

const price = number()
  .integer('A price is in hundredths.')
  .min(0)
  .max(100_000_000_00, 'A price is up to 100,000,000.')
  .nullable();

/** Signing in with name and password. */
export const signInBody = object({
  login: text().required('Type your name.'),
  password: text().required('Type your password.'),
});
/** Signing in as one of the made-up people. */
export const demoSignInBody = object({ person: id().required() });
/** The first account, with the code from the console. */
export const firstHeadBody = object({
  code: text().required('Type the code from the console.'),
  name: text().required('Type your name.'),
  login: text(60).required('Choose a sign-in name.'),
  password: password().required('Choose a password.'),
});
/** A new account. */
export const personBody = object({
  name: text().required('Type a name.'),
  login: text(60).required('Type a sign-in name.'),
  role: mixed<(typeof ROLES)[number]>()
    .oneOf([...ROLES], 'Choose a role.')
    .required('Choose a role.'),
  password: password().required('Type a password.'),
});
/** What the head may change of an account; a password only when a new one is given. */
export const personChangeBody = object({
  name: text().trim().required('Type a name.'),
  role: mixed<(typeof ROLES)[number]>()
    .oneOf([...ROLES], 'Choose a role.')
    .required('Choose a role.'),
  active: boolean().required(),
  password: password().optional(),
});
/** One’s own new password. */
export const passwordBody = object({
  now: string().max(200).required('Type the password you have now.'),
  password: password().required('Type the new password.'),
});

/** MARC 21 Specifications for Record Structure: a subfield code and an indicator are one graphic character of ASCII. */
const subfield = object({
  code: string()
    .matches(/^[!-~]$/, 'A subfield code is one letter, digit or mark of ASCII.')
    .required(),
  value: string().max(99999).defined(),
});
const indicator = () =>
  string()
    .matches(/^[ 0-9a-z|]$/, 'An indicator is a blank, a digit or a small letter.')
    .optional();
const field = object({
  tag: string()
    .matches(/^[0-9A-Z]{3}$/, 'A tag has three digits.')
    .required(),
  value: string().max(99999).optional(),
  ind1: indicator(),
  ind2: indicator(),
  subfields: array(subfield).max(2000).optional(),
});
/** A record’s leader and fields as they are sent. */
export const marcBody = object({
  leader: string()
    .matches(/^[ -~]{24}$/, 'A leader has 24 characters of ASCII.')
    .required(),
  fields: array(field).max(2000).required(),
});
/** A record that is saved, with the version it was made from. */
export const recordBody = object({ version: number().integer().required(), marc: marcBody.required() });

const outcome = () =>
  mixed<Outcome>()
    .oneOf([...OUTCOMES], 'Choose what is done.')
    .required('Choose what is done.');
/** Records by number, or all that wait under a facet. */
export const decisionBody = object({
  incoming: array(id().required()).max(20000).default([]),
  facet: text(80).optional(),
  decision: outcome(),
  target: id().nullable().optional(),
});
/** A copy that is to be made; that its codes are on their lists is told at the copy, not refused. */
const proposedCopy = object({
  branch: text().defined(),
  location: text().defined(),
  scheme: mixed<Scheme>().oneOf(['lc', 'dewey', 'nlm', 'own']).required(),
  prefix: text().defined(),
  class: text().defined(),
  item: text().defined(),
  suffix: text().defined(),
  barcode: text().defined(),
  part: text(60).trim().optional(),
  number: number().integer().min(1, 'A copy number is 1 or more.').required(),
  type: text().defined(),
  price: price.defined(),
  fund: text().defined(),
  supplier: text().defined(),
  note: text().defined(),
  status: mixed<CopyStatus>()
    .oneOf([...COPY_STATUSES], 'Choose a status.')
    .required(),
  remarks: array(text(500).required()).max(20).default([]),
});
/** A waiting record as a person corrects it: its fields, its copies, or a note. */
export const incomingBody = object({
  version: number().integer().required(),
  marc: marcBody.optional().default(undefined),
  copies: array(proposedCopy.required()).max(200).optional(),
  note: text(500).optional(),
});
const weight = () =>
  number().integer().min(1, 'A weight is from 1 to 100.').max(100, 'A weight is from 1 to 100.').required();
/** A subfield code or a field address; core says which are right. */
const place = () => string().max(80).optional();
const table = () => mixed<Record<string, string>>().optional();
/** What is done with a delivery; that codes are on their lists is looked at with the lists in hand. */
const settingsShape = {
  format: mixed<'found' | FileFormat>()
    .oneOf(['found', 'iso2709', 'marcxml', 'json', 'lines', 'csv'])
    .required(),
  charset: mixed<'found' | 'utf8' | 'marc8'>().oneOf(['found', 'utf8', 'marc8']).required(),
  rule: object({
    points: array(
      object({
        by: mixed<PointKind>()
          .oneOf([...POINTS])
          .required(),
        weight: weight(),
        alone: boolean().required(),
      }),
    )
      .max(POINTS.length)
      .required(),
    guards: object({
      format: boolean().required(),
      part: boolean().required(),
      edition: boolean().required(),
      years: number().integer().min(0).max(500).nullable().defined(),
      title: boolean().required(),
    }).required(),
  }).required(),
  actions: object({ one: outcome(), several: outcome(), none: outcome() }).required(),
  recipe: text(40).defined(),
  protectedFields: array(string().max(3).required()).max(100).required(),
  mapping: object({
    tag: string().max(3).defined(),
    subfields: object(
      Object.fromEntries(COPY_PARTS.map((p) => [p, place()])) as Record<
        (typeof COPY_PARTS)[number],
        ReturnType<typeof place>
      >,
    ).required(),
    tables: object({ branch: table(), location: table(), type: table(), fund: table() }).required(),
  }).required(),
  defaults: object({
    branch: code().defined(),
    location: code().defined(),
    type: code().defined(),
    fund: text(60).defined(),
    supplier: text(60).defined(),
    price: price.defined(),
    status: mixed<'available' | 'in transit' | 'in repair' | 'reserved'>()
      .oneOf(['available', 'in transit', 'in repair', 'reserved'])
      .required(),
    copies: number().integer().min(0).max(99, 'At most 99 copies.').required(),
  }).required(),
  roll: id().nullable().defined(),
};
/** Other settings for one delivery. */
export const settingsBody = object({
  version: number().integer().required(),
  /** The sheet that the settings are taken from, or null for none. */
  sheet: id().nullable().defined(),
  settings: object(settingsShape).required(),
});
const sheetShape = {
  name: text(80).required('Give the supplier a name.'),
  files: array(text(120).required()).max(40).required(),
  organisations: array(text(40).required()).max(40).required(),
  ...settingsShape,
};
/** A new supplier sheet. */
export const sheetBody = object({ sheet: object(sheetShape).required() });
/** A supplier sheet that is changed. */
export const sheetChangeBody = object({
  version: number().integer().required(),
  sheet: object(sheetShape).required(),
});
const rollShape = {
  name: text(80).required('Give the roll a name.'),
  prefix: string().max(18).matches(/^\d*$/, 'Digits only.').defined(),
  from: number().integer().min(0).required('Type the first number.'),
  to: number().integer().min(0).required('Type the last number.'),
  length: number().integer().min(3).max(20).required('How many digits does a barcode have?'),
  check: boolean().required(),
  supplier: text(80).defined(),
};
/** A new label roll. */
export const rollBody = object({ roll: object(rollShape).required() });
/** A label roll that is changed. */
export const rollChangeBody = object({
  version: number().integer().required(),
  roll: object(rollShape).required(),
});
/** The version that somebody saw. */
export const versionBody = object({ version: number().integer().required() });
/** Records of a delivery to take back; all that were accepted when none is named. */
export const takeBackBody = object({
  incoming: array(id().required()).max(20000).default([]),
  leaveOut: array(id().required()).max(20000).default([]),
});
/** A recipe over the waiting records of a delivery. */
export const cleanBody = object({
  recipe: text().required(),
  leaveOut: array(id().required()).max(20000).default([]),
});
/** A search of the catalogue: words as in the scan line, facets, and where it looks, if not everywhere. */
const searchShape = {
  q: string().max(500).default(''),
  language: string().max(20).optional(),
  branch: string().max(40).optional(),
  material: string().max(40).optional(),
  /** Only what lies on this pile. */
  pile: id().optional(),
  /** Only what was accepted from this delivery. */
  delivery: id().optional(),
};
/** A search of the catalogue. */
export const searchBody = object(searchShape);
/** A recipe and the search of the catalogue that it runs over. */
export const cleanRecordsBody = object({
  recipe: text().required(),
  ...searchShape,
  leaveOut: array(id().required()).max(20000).default([]),
});
/** A recipe as it is kept; what each step may be is core's to say. */
export const recipeBody = object({
  name: text().max(120).required('Give the recipe a name.'),
  steps: array(mixed<{ step: string }>().required())
    .min(1, 'A recipe has at least one step.')
    .max(200)
    .required(),
});
/** A recipe that is changed. */
export const recipeChangeBody = recipeBody.shape({ version: number().integer().required() });
/** A recipe file of another library, as text. */
export const recipeFileBody = object({ text: string().max(500_000).required() });
/** A recipe that is deleted. */
export const recipeRemovalBody = object({ version: number().integer().required() });

/** Safe fixes of these checks; all checks when none is named. */
export const fixBody = object({
  rules: array(text().required()).max(200).default([]),
  leaveOut: array(id().required()).max(20000).default([]),
});
/** Accepting, but for some records. */
export const acceptBody = object({ leaveOut: array(id().required()).max(20000).default([]) });
/** Reviews show a page of rows at once, from this row on. */
const page = { from: number().integer().min(0).max(1_000_000).default(0) };
/** Which page of a review. */
export const pageBody = object(page);
/** A page of the review of accepting. */
export const acceptReviewBody = acceptBody.shape(page);
/** A page of the review of safe fixes. */
export const fixReviewBody = fixBody.shape(page);
/** A page of the review of a recipe over a delivery. */
export const cleanReviewBody = cleanBody.shape(page);
/** A page of the review of undoing accepted records. */
export const takeBackReviewBody = takeBackBody.shape(page);
/** A page of the review of a recipe over what a search finds. */
export const cleanRecordsReviewBody = cleanRecordsBody.shape(page);

const pileName = () => text(80).trim().required('Give the pile a name.');
const piledKind = () =>
  mixed<PiledKind>()
    .oneOf(['record', 'copy'], 'A pile is of records or of copies.')
    .required('A pile is of records or of copies.');
/** A new pile. */
export const pileBody = object({ name: pileName(), of: piledKind(), note: text(500).default('') });
/** Another name and note of a pile. */
export const pileChangeBody = object({
  version: number().integer().required(),
  name: pileName(),
  note: text(500).default(''),
});
/** What a search finds, to be put on a pile: one that is there, or a new one by its name. */
export const fillPileBody = object({
  into: id().nullable().default(null),
  name: text(80).trim().default(''),
  of: piledKind().default('record'),
  ...searchShape,
});
/** Numbers of the records or copies that are taken off a pile. */
export const takeOffBody = object({
  objects: array(id().required()).min(1, 'Choose what is taken off.').max(5000).required(),
});
/** Scans that are put on a pile: barcodes, or for records also ISBNs and record numbers. */
export const pileScansBody = object({
  codes: array(string().max(60).required())
    .min(1, 'Scan something.')
    .max(5000, 'At most 5,000 scans at once.')
    .required(),
});

/** Headings that are merged into one. */
export const mergeBody = object({
  kept: id().required(),
  lost: array(id().required()).min(1, 'Choose what is merged into the kept form.').max(50).required(),
});
/** A page of the review of a merge. */
export const mergeReviewBody = mergeBody.shape(page);
/** Two headings that are two people. */
export const distinctBody = object({ a: id().required(), b: id().required() });
/** A scanner's file by its name. */
export const fileNameQuery = text();

/** A new holding. */
export const holdingBody = object({
  record: id().required(),
  branch: code().defined(),
  location: code().defined(),
  scheme: mixed<'lc' | 'dewey' | 'nlm' | 'own'>().oneOf(['lc', 'dewey', 'nlm', 'own']).required(),
  prefix: text(40).default(''),
  class: text(60).trim().required('A call number needs a class.'),
  item: text(60).default(''),
  suffix: text(40).default(''),
  note: text().default(''),
});
/** A new copy of a holding. */
export const copyBody = object({
  holding: id().required(),
  barcode: text(40)
    .test('not blank', 'Scan or type a barcode.', (v) => v === undefined || /\S/.test(v))
    .required('Scan or type a barcode.'),
  /** The part or volume, as written on it; '' for a title that is one whole. */
  part: text(60).trim().default(''),
  type: code().defined(),
  price: number()
    .integer('A price is in hundredths.')
    .min(0)
    .max(100_000_000_00, 'A price is up to 100,000,000.')
    .nullable()
    .default(null),
  fund: text(60).default(''),
  supplier: text(60).default(''),
  acquired: isoDay().default(''),
  condition: text().default(''),
  note: text().default(''),
  /** Keep a barcode that is not in the house's form, on purpose. */
  keepBarcode: boolean().default(false),
});
/** What of a copy is changed. */
export const copyChangeBody = object({
  version: number().integer().required(),
  status: mixed<(typeof COPY_STATUSES)[number]>()
    .oneOf([...COPY_STATUSES])
    .optional(),
  note: text().optional(),
  part: text(60).trim().optional(),
  number: number()
    .integer()
    .min(1, 'A copy number is 1 or more.')
    .max(9999, 'A copy number is 9999 or less.')
    .optional(),
});

/** A new withdrawal list. */
export const withdrawalListBody = object({
  name: text().required('Give the list a name.'),
  branch: code().required('Choose a branch.'),
  reason: text().default(''),
});
/** Codes that were scanned or pasted. */
export const codesBody = object({
  codes: array(string().max(60).required())
    .max(5000, 'At most 5,000 scans at once. Load more as a file.')
    .required(),
  name: text().default(''),
});
/** Scans of a stocktake; with where they come from, they may be sent again. */
export const scanBody = object({
  codes: array(string().max(60).required())
    .max(5000, 'At most 5,000 scans at once. Load more as a file.')
    .required(),
  from: object({
    /** Names the device, and its run: a walk from one start of the page to its end. */
    device: string().max(60).required(),
    run: string().max(60).required(),
    /** Of the first code, counted within the run. */
    number: number().integer().min(0).required(),
  })
    .optional()
    .default(undefined),
});
/** Copies of a list that are withdrawn. */
export const withdrawBody = object({
  copies: array(id().required()).min(1, 'Choose the copies to withdraw.').max(5000).required(),
  /** Of the review that is acted on. */
  token: string().max(100).optional(),
});

/** A new stocktake. */
export const stocktakeBody = object({
  name: text().required('Give the stocktake a name.'),
  branch: code().required('Choose a branch.'),
  locations: array(code().required()).default([]),
  types: array(code().required()).default([]),
  scheme: mixed<'lc' | 'dewey' | 'nlm' | 'own'>().oneOf(['lc', 'dewey', 'nlm', 'own']).default('dewey'),
  from: text(60).default(''),
  to: text(60).default(''),
  seenSince: isoDay().default(''),
});
/** Findings that are settled, and where a copy belongs from now on. */
export const settleBody = object({
  items: array(
    object({
      copy: id().required(),
      act: mixed<'mark-missing' | 'mark-found' | 'correct-location'>()
        .oneOf(['mark-missing', 'mark-found', 'correct-location'])
        .required(),
    }).required(),
  )
    .min(1, 'Choose findings to settle.')
    .max(20000)
    .required(),
  /** Where copies whose location is corrected belong from now on. */
  location: code().default(''),
});

/** The code lists that are saved. */
export const listsBody = object({
  version: number().integer().required(),
  branches: array(
    object({
      code: code().required('A branch needs a code.'),
      name: text().required('A branch needs a name.'),
    }),
  ).required(),
  locations: array(
    object({
      code: code().required('A location needs a code.'),
      name: text().required('A location needs a name.'),
      branch: code().required('A location needs a branch.'),
    }),
  ).required(),
  types: array(
    object({
      code: code().required('A type needs a code.'),
      name: text().required('A type needs a name.'),
      price: number().integer().min(0).nullable().default(null),
    }),
  ).required(),
  funds: array(
    object({
      code: text(60).trim().required('A fund needs a code.'),
      name: text().required('A fund needs a name.'),
    }),
  ).required(),
  suppliers: array(
    object({
      code: text(60).trim().required('A supplier needs a code.'),
      name: text().required('A supplier needs a name.'),
    }),
  ).required(),
});
/** The house rules that are saved. */
export const houseBody = object({
  version: number().integer().required(),
  classDecimals: number().integer().min(0).max(12).required(),
  cutterLetters: number().integer().min(0).max(6).required(),
  droppedSubdivisions: array(text().required()).required(),
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
  checksOff: array(text().required()).required(),
  barcode: object({
    length: number().integer().min(4).max(20).required(),
    kind: string().matches(/^\d?$/, 'One digit.').defined(),
    library: string().matches(/^\d*$/, 'Digits only.').defined(),
  }).required(),
});

export type SearchBody = InferType<typeof searchBody>;
export type PileBody = InferType<typeof pileBody>;
export type PileChangeBody = InferType<typeof pileChangeBody>;
export type FillPileBody = InferType<typeof fillPileBody>;
export type CleanRecordsBody = InferType<typeof cleanRecordsBody>;
export type RecipeBody = InferType<typeof recipeBody>;
export type IncomingBody = InferType<typeof incomingBody>;
export type SettingsBody = InferType<typeof settingsBody>;
export type SheetBody = InferType<typeof sheetBody>;
export type RollBody = InferType<typeof rollBody>;
export type RecordBody = InferType<typeof recordBody>;
export type MarcBody = InferType<typeof marcBody>;
export type HoldingBody = InferType<typeof holdingBody>;
export type CopyBody = InferType<typeof copyBody>;
export type StocktakeBody = InferType<typeof stocktakeBody>;
export type SettleBody = InferType<typeof settleBody>;
export type PersonBody = InferType<typeof personBody>;
export type PersonChangeBody = InferType<typeof personChangeBody>;
export type ListsBody = InferType<typeof listsBody>;
export type HouseBody = InferType<typeof houseBody>;
/** Scans of a stocktake as they are sent. */
export type ScanBody = InferType<typeof scanBody>;
