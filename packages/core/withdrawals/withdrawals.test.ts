import type { LastCopy, WithdrawalLimits } from '../house';
import type { Copy, Holding, Withdrawn } from '../holdings';
import { dataFields } from '../marc';
import {
  candidatesIn,
  monthsBefore,
  registerColumns,
  registerWords,
  weighWithdrawals,
  withdrawalPlan,
  type Candidate,
  type CopyCounts,
  type Listed,
  type TitleStock,
  type WeighTerms,
} from '.';

const candidate = (copyId: number, more: Partial<Candidate> = {}): Candidate => ({
  ...{ copyId, holdingId: 10, recordId: 100, title: 'Eels', branch: 'MR', location: 'OPEN' },
  ...{ locationName: 'Open shelves', status: 'available', due: '', loan: 'available', price: null },
  ...{ acquired: '', part: '', keptBy: '', onList: '' },
  ...more,
});
const plenty: CopyCounts = { anywhere: 9, atBranch: 9, ofPart: 0, headings: [] };
const limits: WithdrawalLimits = {
  ...{ priceAbove: 5000, youngerThan: 12, locations: ['LOCAL'], fields: ['590'], lastCopy: 'delete' },
  ...{ lastCopyAt: [], reasons: [], tellLoansDesk: true },
};
const terms = (counts: Partial<CopyCounts> = {}): WeighTerms => ({
  ...{ branch: 'MR', limits, on: '2026-11-29' },
  branchName: (code) => ({ MR: 'Millrace', SH: 'Sedge House' })[code] ?? code,
  counts: () => ({ ...plenty, ...counts }),
  currency: 'GBP',
});
const weigh = (list: readonly Listed[], counts: Partial<CopyCounts> = {}) =>
  weighWithdrawals(list, terms(counts));
const one = (c: Candidate | null, counts: Partial<CopyCounts> = {}, more: Partial<Listed> = {}) =>
  weigh([{ code: 'x', candidate: c, ...more }], counts)[0]!;
const many = (...copies: Candidate[]) => copies.map((c) => ({ code: String(c.copyId), candidate: c }));

describe('verdicts', () => {
  test.each<[string, Partial<Candidate>, 'clear' | 'caution' | 'stop', string, RegExp]>([
    ['nothing against it', {}, 'clear', '', /^$/],
    ['on loan', { due: '2026-12-01' }, 'stop', 'on-loan', /due 2026-12-01/],
    ['loans desk silent', { due: null }, 'caution', 'loan-unknown', /did not answer/],
    [
      'another branch’s copy',
      { branch: 'SH' },
      'stop',
      'other-branch',
      /Belongs to Sedge House, .* Millrace/,
    ],
    ['on the hold shelf', { loan: 'on the hold shelf' }, 'stop', 'on-hold', /waiting for a reader/],
    ['recorded lost', { status: 'lost' }, 'caution', 'lost', /charge/],
    ['claimed returned', { loan: 'claimed returned' }, 'caution', 'loans-desk', /charged/],
    ['in transit', { status: 'in transit' }, 'stop', 'in-transit', /between branches/],
    [
      'in transit as the desk says',
      { status: 'in transit', loan: 'in transit' },
      'stop',
      'in-transit',
      /desk/,
    ],
    ['reserved', { status: 'reserved' }, 'stop', 'reserved', /reserve/],
    ['on another list', { onList: 'Spring' }, 'stop', 'on-other-list', /“Spring”/],
    [
      'in a kept location',
      { location: 'LOCAL', locationName: 'Local history' },
      'caution',
      'protected',
      /^Local history/,
    ],
    ['of a kept record', { keptBy: '590' }, 'caution', 'protected', /Field 590/],
    ['dear', { price: 5001 }, 'caution', 'expensive', /GBP 50\.01, more than GBP 50\.00/],
    ['whose price names the library’s own currency', { price: 100, currency: 'GBP' }, 'clear', '', /^$/],
    [
      'of a price in another currency',
      { price: 100, currency: 'EUR' },
      'caution',
      'expensive',
      /EUR 1\.00, which cannot be held against GBP 50\.00/,
    ],
    ['at the limit of the price', { price: 5000 }, 'clear', '', /^$/],
    ['new', { acquired: '2025-11-30' }, 'caution', 'recent', /less than 12 months ago/],
    ['a year old today', { acquired: '2025-11-29' }, 'clear', '', /^$/],
  ])('%s', (_, more, verdict, code, says) => {
    const v = one(candidate(1, more));
    expect([v.verdict, v.reasons.map((r) => r.code).join()]).toEqual([verdict, code]);
    expect(v.reasons.map((r) => r.message).join(' ')).toMatch(says);
  });
  test.each([
    ['2026-11-29', 12, '2025-11-29'],
    ['2026-03-31', 1, '2026-02-28'],
    ['2024-02-29', 12, '2023-02-28'],
    ['2026-01-15', 0, '2026-01-15'],
  ])('so many months before %s: %i is %s', (day, months, before) =>
    expect(monthsBefore(day, months)).toBe(before),
  );
  test('an unknown code stops, with what it nearly is; one withdrawn before says when', () => {
    expect(one(null, {}, { hint: 'Nearly the same: 7.' })).toMatchObject({
      ...{ verdict: 'stop', overrulable: false },
      reasons: [{ code: 'not-ours', message: expect.stringContaining('Nearly') as string }],
    });
    expect(one(null, {}, { withdrawnBefore: true, hint: 'Withdrawn on 2025-01-01.' }).reasons).toEqual([
      { code: 'withdrawn-before', verdict: 'stop', message: 'Withdrawn on 2025-01-01.' },
    ]);
  });
  test('a code scanned twice is told, counts once, and takes no copy off twice', () => {
    const c = candidate(1);
    const twice = [
      { code: '1', candidate: c },
      { code: '1', candidate: c },
      { code: '2', candidate: candidate(2) },
    ];
    const verdicts = weigh(twice, { anywhere: 3, atBranch: 3 });
    expect(verdicts.map((v) => [v.verdict, v.again])).toEqual([
      ['clear', false],
      ['caution', true],
      ['clear', false],
    ]);
  });
  test('the scan that takes the last copy says so: anywhere, at the branch, of a part', () => {
    const three = many(candidate(1), candidate(2), candidate(3));
    const codes = (list: readonly Listed[], counts: Partial<CopyCounts>) =>
      weigh(list, counts).map((v) => v.reasons.map((r) => r.code).join());
    expect(codes(three, { anywhere: 3, atBranch: 3, headings: ['Eels', 'Osmere'] })).toEqual([
      ...['', '', 'last-anywhere,last-of-heading'],
    ]);
    expect(codes(three.slice(0, 2), { anywhere: 5, atBranch: 2 })).toEqual(['', 'last-at-branch']);
    const parts = many(candidate(1, { part: 'v. 1' }), candidate(2, { part: 'v. 2' }));
    expect(codes(parts, { anywhere: 4, atBranch: 4, ofPart: 1 })).toEqual(['last-of-set', 'last-of-set']);
  });
  test('a stopped copy is not counted off', () => {
    const list = many(candidate(1, { due: '2026-12-01' }), candidate(2));
    expect(weigh(list, { anywhere: 2, atBranch: 2 }).map((v) => v.verdict)).toEqual(['stop', 'clear']);
  });
  test.each<[Partial<Candidate>, boolean]>([
    [{ branch: 'SH' }, true],
    [{ status: 'reserved', onList: 'Spring' }, true],
    [{ branch: 'SH', due: '2026-12-01' }, false],
    [{ loan: 'on the hold shelf' }, false],
    [{}, false],
  ])('%j can be overruled: %p', (more, can) => expect(one(candidate(1, more)).overrulable).toBe(can));
  test('a part of a list is weighed as in the whole, when all scans of a title are in it', () => {
    const title = (copyId: number, recordId: number) => candidate(copyId, { recordId });
    const list = many(title(1, 7), title(2, 8), title(3, 7), title(4, 9), title(5, 7));
    const whole = weigh(list, { anywhere: 3, atBranch: 3 });
    const part = weigh(
      list.filter((l) => l.candidate.recordId === 7),
      { anywhere: 3, atBranch: 3 },
    );
    expect(part).toEqual(whole.filter((v) => v.candidate?.recordId === 7));
    expect(part.at(-1)?.lastAnywhere).toBe(true);
  });
});

describe('the plan', () => {
  const holding = (id: number): { id: number; version: number; value: Holding } => ({
    id,
    version: 1,
    value: {
      record: 100,
      branch: 'MR',
      location: 'OPEN',
      scheme: 'dewey',
      prefix: '',
      class: '746',
      item: 'EEL',
      suffix: '',
      note: '',
    },
  });
  const copy = (id: number, at: number) => ({
    id,
    version: 1,
    value: { holding: at, barcode: `b${id}`, number: id } as Copy,
  });
  const stock = (
    copies: [number, number][],
    holdings = [...new Set(copies.map(([, h]) => h))],
  ): TitleStock => ({
    record: { id: 100, version: 1, value: { leader: '', fields: [] } },
    ...{ title: 'Eels', author: 'Holt, Ada', isSuppressed: false },
    holdings: holdings.map(holding),
    copies: copies.map(([c, h]) => copy(c, h)),
  });
  const planned = (s: TitleStock, chosen: number[], lastCopy: LastCopy = 'delete') => {
    let n = 0;
    return withdrawalPlan([s], new Set(chosen), {
      ...{
        on: '2026-11-23',
        by: 'N',
        reason: 'worn',
        list: 'Trolley',
        preparedBy: 'P',
        lastCopy: () => lastCopy,
      },
      nextId: () => ++n,
      despite: new Map([[1, ['Recorded lost.']]]),
      overruled: new Map([[2, 'In the hand.']]),
    });
  };
  const gone = (s: TitleStock, ...chosen: number[]) => {
    const changes = planned(s, chosen);
    return {
      removed: changes.filter((c) => c.after === null).map((c) => `${c.kind} ${c.id}`),
      register: changes.filter((c) => c.kind === 'withdrawn').map((c) => c.after as { lastCopy: boolean }),
    };
  };
  test('one of two copies: only the copy goes', () =>
    expect(
      gone(
        stock([
          [1, 10],
          [2, 10],
        ]),
        1,
      ),
    ).toMatchObject({ removed: ['copy 1'], register: [{ lastCopy: false }] }));
  test('the last at a holding: the holding goes too', () =>
    expect(
      gone(
        stock([
          [1, 10],
          [2, 11],
        ]),
        1,
      ).removed,
    ).toEqual(['copy 1', 'holding 10']));
  test('the last anywhere: the record goes too, and the register says so', () =>
    expect(gone(stock([[1, 10]]), 1)).toMatchObject({
      removed: ['copy 1', 'holding 10', 'record 100'],
      register: [{ lastCopy: true }],
    }));
  test('a holding that had no copies stays and keeps the record', () =>
    expect(gone(stock([[1, 10]], [10, 12]), 1).removed).toEqual(['copy 1', 'holding 10']));
  test('a record without copies stays, suppressed or with a note, where that is said', () => {
    const last = stock([[1, 10]]);
    const suppressed = planned(last, [1], 'suppress');
    expect(suppressed.map((c) => `${c.kind} ${c.after === null ? 'goes' : 'comes'}`)).toEqual([
      ...['withdrawn comes', 'copy goes', 'holding goes', 'suppressed comes'],
    ]);
    expect(suppressed.at(-1)).toMatchObject({ id: 100, before: null });
    expect(planned({ ...last, isSuppressed: true }, [1], 'suppress')).toHaveLength(3);
    const kept = planned(last, [1], 'keep').at(-1)!;
    expect(kept.kind === 'record' && kept.after && dataFields(kept.after, '590')).toMatchObject([
      { subfields: [{ code: 'a', value: 'Last copy withdrawn 2026-11-23.' }] },
    ]);
    expect(kept.kind).toBe('record');
  });
  test('the register keeps what was said against a copy, and why a stop was overruled', () => {
    const two = stock([
      [1, 10],
      [2, 10],
    ]);
    const rows = planned(two, [1, 2]).flatMap((c) => (c.kind === 'withdrawn' && c.after ? [c.after] : []));
    expect(rows).toMatchObject([
      { author: 'Holt, Ada', list: 'Trolley', despite: ['Recorded lost.'] },
      { overruled: 'In the hand.' },
    ]);
    expect([rows[0]!.overruled, rows[1]!.despite]).toEqual([undefined, undefined]);
  });
});

test('a row of the register is found by words in whatever case, with or without accents', () => {
  const row = {
    ...{ title: 'Café Osmère', author: 'Wróbel, Ö.', branch: 'MR', reason: 'worn', callNumber: '746 WRO' },
    copy: { barcode: '31204000001111', price: 1250 },
  } as Withdrawn;
  const { words, ...rest } = registerColumns(row);
  expect(rest).toEqual({
    branch: 'MR',
    reason: 'worn',
    price: 1250,
    currency: '',
    filing: 'cafe osmere',
    call_number: '746 WRO',
  });
  const finds = (typed: string) => registerWords(typed).every((w) => words.includes(w));
  expect(['CAFE', 'wrobel osmere', '1111', '746 wro', ''].map(finds)).toEqual(Array(5).fill(true));
  expect(finds('cafe eels')).toBe(false);
});

describe('candidates of a shelf', () => {
  const cell = (year: string, used: string | null) => ({ year, used, copies: 5, spare: 2 });
  const any = { publishedBefore: null, usedBefore: null, spareOnly: false };
  test.each([
    ['all without limits, those of no known year too', cell('', ''), any, 5],
    ['published before', cell('1999', '2024'), { ...any, publishedBefore: 2000 }, 5],
    ['published in that year', cell('2000', '2024'), { ...any, publishedBefore: 2000 }, 0],
    ['of no known year, where the year counts', cell('', '2024'), { ...any, publishedBefore: 2000 }, 0],
    ['not seen since', cell('1999', '2018'), { ...any, usedBefore: 2019 }, 5],
    ['seen in that year', cell('1999', '2019'), { ...any, usedBefore: 2019 }, 0],
    ['never seen', cell('1999', ''), { ...any, usedBefore: 2019 }, 5],
    ['of which that is not known', cell('1999', null), { ...any, usedBefore: 2019 }, 0],
    ['both limits', cell('1999', '2020'), { ...any, publishedBefore: 2000, usedBefore: 2019 }, 0],
    ['only beside a better one', cell('1999', '2018'), { ...any, usedBefore: 2019, spareOnly: true }, 2],
  ])('%s', (_, one, limits, n) => expect(candidatesIn(one, limits)).toBe(n));
});
