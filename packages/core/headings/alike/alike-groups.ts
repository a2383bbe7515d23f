import { bucketsOf } from './buckets';
import { candidates, eachOf } from './candidates';
import { compareForms } from './compare-forms';
import { FORM_TYPES, type Form, type FormType, type FormUse, type Gathered } from './forms';
import { fullness, judgedWith, shorterFirst } from './record-evidence';
import type { Judged } from './verdict';

/** Headings that may be one, as their texts, with why. All pairs of a group are meant. */
export interface FormGroup {
  readonly type: FormType;
  readonly verdict: 'same' | 'perhaps';
  readonly members: readonly string[];
  readonly evidence: readonly string[];
}

/** A heading as it is compared: one of its forms stands for all. */
interface Node {
  readonly at: number;
  readonly form: Form;
  readonly texts: readonly string[];
  readonly use: FormUse;
}

/** Pairs of nodes that are to be compared, each once, the earlier one first. */
const pairsOf = (nodes: readonly Node[]): [Node, Node][] =>
  [...candidates(eachOf(nodes, (n) => bucketsOf(n.form)))].flatMap(([at, earlier]) =>
    earlier.map((e): [Node, Node] => [nodes[e]!, nodes[at]!]),
  );

/**
 * Look-alike headings of one type and vocabulary. First all that share a bucket are compared by their forms alone, so that it is known who else could
 * be meant by a short one; then with what the records say.
 */
function judgedPairs(nodes: readonly Node[]): {
  judged: Map<string, Judged>;
  judge: (a: Node, b: Node) => Judged;
} {
  const pairs = pairsOf(nodes);
  const fitting = new Map<number, Node[]>();
  const fits = new Set<string>();
  for (const [a, b] of pairs) {
    if (compareForms(a.form, b.form).verdict === 'different') continue;
    fits.add(pairName(a, b));
    for (const [x, y] of [
      [a, b],
      [b, a],
    ] as const) {
      const there = fitting.get(x.at);
      if (there) there.push(y);
      else fitting.set(x.at, [y]);
    }
  }
  const judge = (a: Node, b: Node): Judged => {
    const [short, long] = shorterFirst(a, b);
    const others = fitting.get(short.at) ?? [];
    const rivals = others.filter((c) => c !== long && !fits.has(pairName(c, long))).length;
    return judgedWith(a, b, rivals);
  };
  const judged = new Map<string, Judged>();
  for (const [a, b] of pairs) {
    const found = judge(a, b);
    if (found.verdict !== 'different') judged.set(pairName(a, b), found);
  }
  // A see-from leads to a form that shares no bucket with it.
  const byKey = new Map(nodes.map((n) => [n.form.key, n]));
  for (const a of nodes)
    for (const key of a.use.seeFroms) {
      const b = byKey.get(key);
      if (!b || b === a || judged.has(pairName(a, b))) continue;
      const found = judge(a, b);
      if (found.verdict !== 'different') judged.set(pairName(a, b), found);
    }
  return { judged, judge };
}

/** Something speaks against them being one, not only too little for it. */
const isApart = (j: Judged): boolean => j.verdict === 'different' && !j.isWeak;

const pairName = (a: Node, b: Node): string => (a.at < b.at ? `${a.at} ${b.at}` : `${b.at} ${a.at}`);

/** Nodes joined where they are the same; what differs from anybody of a group is not let in. */
function sameGroups(
  nodes: readonly Node[],
  judged: ReadonlyMap<string, Judged>,
  judge: (a: Node, b: Node) => Judged,
): Node[][] {
  const groupOf = new Map<number, Node[]>(nodes.map((n) => [n.at, [n]]));
  const edges = [...judged]
    .filter(([, j]) => j.verdict === 'same')
    .map(([name]) => name.split(' ').map(Number));
  for (const [x, y] of edges) {
    const [g, h] = [groupOf.get(x!)!, groupOf.get(y!)!];
    if (g === h) continue;
    const isOne = g.every((a) => h.every((b) => !isApart(judged.get(pairName(a, b)) ?? judge(a, b))));
    if (!isOne) continue;
    const both = [...g, ...h];
    for (const n of both) groupOf.set(n.at, both);
  }
  return [...new Set(groupOf.values())];
}

const order = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

function groupsOf(nodes: readonly Node[]): FormGroup[] {
  const { judged, judge } = judgedPairs(nodes);
  const groups = sameGroups(nodes, judged, judge);
  const at = new Map(groups.flatMap((g) => g.map((n) => [n.at, g] as const)));
  const found: FormGroup[] = [];
  const evidenceIn = (g: readonly Node[]) => {
    const all = g.flatMap((a, i) =>
      g.slice(i + 1).flatMap((b) => judged.get(pairName(a, b))?.evidence ?? []),
    );
    return all.length ? [...new Set(all)] : ['they are the same in normal form'];
  };
  for (const g of groups) {
    const members = [...new Set(g.flatMap((n) => n.texts))].sort(order);
    if (members.length > 1)
      found.push({ type: g[0]!.form.type, verdict: 'same', members, evidence: evidenceIn(g) });
  }
  const told = new Set<string>();
  for (const [name, j] of judged) {
    const [x, y] = name.split(' ').map(Number);
    const [g, h] = [at.get(x!)!, at.get(y!)!];
    const both = [Math.min(...g.map((n) => n.at)), Math.min(...h.map((n) => n.at))]
      .sort((p, q) => p - q)
      .join(' ');
    if (g === h || told.has(both)) continue;
    told.add(both);
    const isSplit = g.some((a) => h.some((b) => isApart(judged.get(pairName(a, b)) ?? judge(a, b))));
    if (isSplit) continue;
    const members = [g, h].map((of) => [...of].sort((p, q) => fullness(q) - fullness(p))[0]!.texts[0]!);
    if (members[0] !== members[1])
      found.push({
        type: nodes[x!]!.form.type,
        verdict: 'perhaps',
        members: members.sort(order),
        evidence: j.evidence,
      });
  }
  return found;
}

/** Look-alikes among the headings that were gathered, the surest first; the same headings give the same groups in the same order. */
export function alikeForms({ headings }: Gathered): FormGroup[] {
  const of = new Map<string, { form: Form; texts: string[]; use: FormUse }[]>();
  for (const { forms, use } of headings.values()) {
    const all = [...forms.values()];
    const [form] = all;
    if (!form) continue;
    const kind = `${FORM_TYPES.indexOf(form.type)} ${form.vocabulary}`;
    const own = { form, texts: all.map((f) => f.text), use };
    const there = of.get(kind);
    if (there) there.push(own);
    else of.set(kind, [own]);
  }
  const found = [...of.keys()]
    .sort(order)
    .flatMap((kind) => groupsOf(of.get(kind)!.map((n, at) => ({ ...n, at }))));
  return oneSameGroupEach(
    found.sort(
      (a, b) =>
        order(b.verdict, a.verdict) ||
        order(a.type, b.type) ||
        order(a.members.join('\n'), b.members.join('\n')),
    ),
  );
}

/** A text that is a heading of two vocabularies stands in one group only. */
function oneSameGroupEach(groups: readonly FormGroup[]): FormGroup[] {
  const taken = new Set<string>();
  return groups.flatMap((g) => {
    if (g.verdict !== 'same') return [g];
    const members = g.members.filter((m) => !taken.has(`${g.type} ${m}`));
    for (const m of members) taken.add(`${g.type} ${m}`);
    return members.length > 1 ? [{ ...g, members }] : [];
  });
}
