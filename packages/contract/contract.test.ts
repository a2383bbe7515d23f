import { ValidationError, type Schema } from 'yup';
import * as contract from '.';

/** What a body is refused with, by field; empty when it is taken. */
async function refused(schema: Schema, body: unknown): Promise<Record<string, string>> {
  try {
    await schema.validate(body, { abortEarly: false, strict: true });
    return {};
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return Object.fromEntries(error.inner.map((e) => [e.path ?? '', e.message]));
  }
}
const marc = {
  leader: '00000nam a2200000 i 4500',
  fields: [{ tag: '245', ind1: '0', ind2: '0', subfields: [{ code: 'a', value: 'Eels' }] }],
};
const copy = {
  ...{ branch: 'MR', location: 'OPEN', scheme: 'dewey', prefix: '', class: '746', item: '', suffix: '' },
  ...{
    barcode: '',
    number: 1,
    type: 'BK',
    price: null,
    fund: '',
    supplier: '',
    note: '',
    status: 'available',
  },
  remarks: [],
};
const lists = {
  version: 1,
  branches: [{ code: 'MR', name: 'Millrace' }],
  locations: [{ code: 'OPEN', name: 'Open shelves', branch: 'MR' }],
  types: [{ code: 'BK', name: 'Book', price: 1800 }],
  funds: [{ code: 'Holt bequest', name: 'Holt bequest' }],
  suppliers: [],
};

test.each<[string, Schema, unknown]>([
  ['a record', contract.recordBody, { version: 1, marc }],
  ['an incoming record with copies', contract.incomingBody, { version: 1, copies: [copy] }],
  ['a note', contract.incomingBody, { version: 1, note: 'Asked the supplier.' }],
  ['a decision', contract.decisionBody, { incoming: [4], decision: 'skip' }],
  ['code lists', contract.listsBody, lists],
  ['a page of a review', contract.acceptReviewBody, { leaveOut: [4], from: 200 }],
  ['an act without anything left out', contract.acceptBody, { leaveOut: [] }],
])('%s is taken', async (_, schema, body) => expect(await refused(schema, body)).toEqual({}));

test.each<[string, Schema, unknown, string, RegExp]>([
  ['no name', contract.signInBody, { login: '', password: 'x' }, 'login', /Type your name/],
  [
    'a short password',
    contract.firstHeadBody,
    { code: 'c', name: 'n', login: 'l', password: 'short' },
    'password',
    /at least 12/,
  ],
  [
    'a role that there is not',
    contract.personBody,
    { name: 'n', login: 'l', role: 'king', password: 'long enough 1' },
    'role',
    /Choose a role/,
  ],
  [
    'a short leader',
    contract.recordBody,
    { version: 1, marc: { ...marc, leader: 'x' } },
    'marc.leader',
    /24 characters/,
  ],
  [
    'a tag of two',
    contract.recordBody,
    { version: 1, marc: { ...marc, fields: [{ tag: '24', value: 'x' }] } },
    'marc.fields[0].tag',
    /three digits/,
  ],
  [
    'a decision on nothing',
    contract.decisionBody,
    { incoming: [], decision: 'skip' },
    'incoming',
    /Choose records/,
  ],
  [
    'a decision that there is not',
    contract.decisionBody,
    { incoming: [1], decision: 'burn' },
    'decision',
    /Choose an outcome/,
  ],
  [
    'a price with a point',
    contract.incomingBody,
    { version: 1, copies: [{ ...copy, price: 9.5 }] },
    'copies[0].price',
    /hundredths/,
  ],
  [
    'copy number nought',
    contract.incomingBody,
    { version: 1, copies: [{ ...copy, number: 0 }] },
    'copies[0].number',
    /1 or more/,
  ],
  [
    'a status that there is not',
    contract.incomingBody,
    { version: 1, copies: [{ ...copy, status: 'eaten' }] },
    'copies[0].status',
    /Choose a status/,
  ],
  [
    'a branch code with a blank',
    contract.listsBody,
    { ...lists, branches: [{ code: 'M R', name: 'x' }] },
    'branches[0].code',
    /no blanks/,
  ],
  [
    'a fund without a code',
    contract.listsBody,
    { ...lists, funds: [{ code: '', name: 'x' }] },
    'funds[0].code',
    /A fund needs a code/,
  ],
  [
    'a supplier without a name',
    contract.listsBody,
    { ...lists, suppliers: [{ code: 'X', name: '' }] },
    'suppliers[0].name',
    /A supplier needs a name/,
  ],
  ['lists that leave funds out', contract.listsBody, { ...lists, funds: undefined }, 'funds', /required/],
  ['a page before the first', contract.acceptReviewBody, { leaveOut: [], from: -1 }, 'from', /greater/],
  [
    'a currency in small letters',
    contract.houseBody,
    { ...house(), currency: 'gbp' },
    'currency',
    /Three capitals/,
  ],
  [
    'a protected field that is no tag',
    contract.houseBody,
    { ...house(), protectedFields: ['9'] },
    'protectedFields[0]',
    /Three digits/,
  ],
  [
    'a system in capitals',
    contract.houseBody,
    { ...house(), thesauri: ['LCSH'] },
    'thesauri[0]',
    /small letters/,
  ],
  [
    'a date of another form',
    contract.copyBody,
    { holding: 1, barcode: '1', type: 'BK', acquired: '25.11.2026' },
    'acquired',
    /YYYY-MM-DD/,
  ],
])('%s is refused beside its field', async (_, schema, body, field, said) => {
  const problems = await refused(schema, body);
  expect(Object.keys(problems)).toEqual([field]);
  expect(problems[field]).toMatch(said);
});

function house() {
  return {
    ...{ version: 1, classDecimals: 2, cutterLetters: 3, droppedSubdivisions: [], protectedFields: ['9..'] },
    ...{ jumpLength: 8, thesauri: [], currency: 'GBP', punctuation: 'kept', checksOff: [] },
    barcodes: [{ of: 'copy', prefix: '31204', form: '999999999', check: 'mod10' }],
  };
}

describe('who may do what', () => {
  const { may, PERMISSIONS, permissionToUndo } = contract;
  test('each role may what those before it may', () => {
    for (const permission of Object.keys(PERMISSIONS) as contract.Permission[]) {
      const allowed = contract.ROLES.map((role) => may(role, permission));
      expect(allowed).toEqual([...allowed].sort((a, b) => Number(a) - Number(b)));
      expect(may('head', permission)).toBe(true);
    }
  });
  test.each([
    ['assistant', 'look', true],
    ['assistant', 'edit records', false],
    ['cataloguer', 'take in deliveries', true],
    ['cataloguer', 'set up', false],
    ['cataloguer', 'confirm withdrawals', false],
  ] as const)('%s, %s: %p', (role, permission, allowed) => expect(may(role, permission)).toBe(allowed));
  test.each([
    ['accept', 'undo'],
    ['withdraw', 'confirm withdrawals'],
    ['close-stocktake', 'manage stocktakes'],
    ['set-up', 'set up'],
  ])('taking back “%s” asks for “%s”', (act, permission) => expect(permissionToUndo(act)).toBe(permission));
});
