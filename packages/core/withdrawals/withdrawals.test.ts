import type { Copy, Holding } from '../holdings';
import { weighWithdrawals, withdrawalPlan, type Candidate, type TitleStock } from '.';

const candidate = (copyId: number, more: Partial<Candidate> = {}): Candidate => ({
  copyId,
  holdingId: 10,
  recordId: 100,
  title: 'Eels',
  branch: 'MR',
  status: 'available',
  due: '',
  loan: 'available',
  ...more,
});
const plenty = () => ({ anywhere: 9, atBranch: 9 });
const name = (code: string) => ({ MR: 'Millrace', SH: 'Sedge House' })[code] ?? code;
const one = (c: Candidate | null, counts = plenty, hint?: string) =>
  weighWithdrawals([{ code: 'x', candidate: c, hint }], 'MR', counts, name)[0]!;

describe('verdicts', () => {
  test.each<[string, Partial<Candidate>, string, string]>([
    ['nothing against it', {}, 'clear', ''],
    ['on loan', { due: '2026-12-01' }, 'stop', 'on-loan'],
    ['loans desk silent', { due: null }, 'caution', 'loan-unknown'],
    ['another branch’s copy', { branch: 'SH' }, 'stop', 'other-branch'],
    ['recorded lost', { status: 'lost' }, 'caution', 'lost'],
    ['in transit', { status: 'in transit' }, 'stop', 'in-transit'],
    ['reserved', { status: 'reserved' }, 'stop', 'reserved'],
  ])('%s', (_, more, verdict, code) => {
    const v = one(candidate(1, more));
    expect(v.verdict).toBe(verdict);
    expect(v.reasons.map((r) => r.code).join()).toBe(code);
  });
  test('a code that no copy has is a stop, with the near one told', () => {
    expect(one(null, plenty, 'Nearly the same: 7.')).toMatchObject({
      verdict: 'stop',
      reasons: [{ code: 'not-ours', message: expect.stringContaining('Nearly') as string }],
    });
  });
  test('scanned twice counts once', () => {
    const c = candidate(1);
    expect(
      weighWithdrawals(
        [
          { code: 'x', candidate: c },
          { code: 'x', candidate: c },
        ],
        'MR',
        plenty,
        name,
      ).map((v) => v.verdict),
    ).toEqual(['clear', 'stop']);
  });
  test('the scan that takes the last copy says so, at the branch and anywhere', () => {
    const three = [1, 2, 3].map((n) => ({ code: String(n), candidate: candidate(n) }));
    const counts = (anywhere: number, atBranch: number) => () => ({
      anywhere,
      atBranch,
      atHolding: atBranch,
    });
    expect(weighWithdrawals(three, 'MR', counts(3, 3), name).map((v) => v.reasons[0]?.code)).toEqual([
      undefined,
      undefined,
      'last-anywhere',
    ]);
    expect(
      weighWithdrawals(three.slice(0, 2), 'MR', counts(5, 2), name).map((v) => v.reasons[0]?.code),
    ).toEqual([undefined, 'last-at-branch']);
  });
  test('a copy that stays does not count towards the last', () => {
    const list = [
      { code: '1', candidate: candidate(1, { due: '2026-12-01' }) },
      { code: '2', candidate: candidate(2) },
    ];
    expect(
      weighWithdrawals(list, 'MR', () => ({ anywhere: 2, atBranch: 2 }), name).map((v) => v.verdict),
    ).toEqual(['stop', 'clear']);
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
    title: 'Eels',
    holdings: holdings.map(holding),
    copies: copies.map(([c, h]) => copy(c, h)),
  });
  const gone = (s: TitleStock, ...chosen: number[]) => {
    let n = 0;
    const changes = withdrawalPlan([s], new Set(chosen), {
      on: '2026-11-23',
      by: 'N',
      reason: 'worn',
      nextId: () => ++n,
    });
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
});
