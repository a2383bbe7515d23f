import { labelledHeadings } from '../../testing/labelled-headings';
import { alikeForms, gather, type FormGroup, type Gathered } from '.';

const { records, truth } = labelledHeadings();
const gathered: Gathered = { headings: new Map() };
for (const record of records) gather(gathered, record);
const groups = alikeForms(gathered);
const plain = (text: string) => text.replace(/[\s.,;:/]+$/, '');
const pair = (a: string, b: string) => [plain(a), plain(b)].sort().join(' | ');

/** Pairs that are proposed for a type: those of a group, and of the same-groups that it names. */
function proposed(type: string) {
  const sameOf = new Map<string, FormGroup>();
  for (const g of groups)
    if (g.type === type && g.verdict === 'same') for (const m of g.members) sameOf.set(plain(m), g);
  const all = { same: new Set<string>(), perhaps: new Set<string>() };
  for (const g of groups.filter((g) => g.type === type)) {
    const whole = g.members.map((m) =>
      g.verdict === 'perhaps' ? (sameOf.get(plain(m))?.members ?? [m]) : [m],
    );
    whole.forEach((some, i) =>
      whole
        .slice(i + 1)
        .forEach((others) => some.forEach((a) => others.forEach((b) => all[g.verdict].add(pair(a, b))))),
    );
  }
  return all;
}

function measured(type: string) {
  const of = [...truth.get(type)!].filter(([, who]) => !who.startsWith('several'));
  const trueOnes = new Set<string>();
  of.forEach(([a, who], i) =>
    of.slice(i + 1).forEach(([b, other]) => who === other && trueOnes.add(pair(a, b))),
  );
  const known = new Set(of.map(([t]) => t));
  const counts = (p: string) => p.split(' | ').every((t) => known.has(t));
  const { same, perhaps } = proposed(type);
  const [s, q] = [[...same].filter(counts), [...perhaps].filter((p) => counts(p) && !same.has(p))];
  const right = (ps: string[]) => ps.filter((p) => trueOnes.has(p)).length;
  return {
    headings: truth.get(type)!.size,
    pairs: trueOnes.size,
    precision: s.length ? right(s) / s.length : 1,
    recall: (right(s) + right(q)) / trueOnes.size,
    shown: (right(s) + right(q)) / (s.length + q.length),
    wrong: s.filter((p) => !trueOnes.has(p)),
    missed: [...trueOnes].filter((p) => !same.has(p) && !perhaps.has(p)),
  };
}

const all = [...truth.keys()].map((type) => ({ type, ...measured(type) }));
test('the labelled set is large, and has many traps', () => {
  expect(all.reduce((n, m) => n + m.headings, 0)).toBeGreaterThanOrEqual(600);
  expect(all.reduce((n, m) => n + m.pairs, 0)).toBeGreaterThanOrEqual(150);
});
test.each(all)('$type: $headings headings', ({ type, pairs, precision, recall, shown, wrong, missed }) => {
  process.stderr.write(
    `look-alikes, ${type}: ${pairs} true pairs; same precision ${precision.toFixed(3)}, recall of same and perhaps ${recall.toFixed(3)}, right of all shown ${shown.toFixed(3)}\n`,
  );
  expect(wrong.slice(0, 10)).toEqual([]);
  expect(precision).toBeGreaterThanOrEqual(0.99);
  if (recall < 0.95) expect(missed.slice(0, 20)).toEqual([]);
  expect(shown).toBeGreaterThanOrEqual(0.25);
});
