import { RegExpParser, type AST } from '@eslint-community/regexpp';

/**
 * How the work of an expression can grow. An engine that tries one way after another needs, for a text of n characters,
 * about n to the power of the repetitions that can share the same characters, once more when it may begin anywhere; and
 * for ever where a repetition repeats something of changing length. Common practice of reviewing expressions; no source.
 *
 * Gives a sentence on why a pattern could run for ever on a long text, or null. Flags `gu` are taken for granted; a pattern
 * that is not well formed throws a SyntaxError with the reason.
 */
export function runawayIn(pattern: string): string | null {
  const tree = new RegExpParser().parsePattern(pattern, 0, pattern.length, { unicode: true });
  const sampled = samplesOf(pattern);
  try {
    let most = 0;
    for (const way of tree.alternatives) most = Math.max(most, growth(way, sampled));
    if (most > MOST_GROWTH)
      return `“${pattern}” could run for very long on a long text. Begin it with ^, or say what may stand in between, as in [^,]* for .*`;
    return null;
  } catch (error) {
    if (error instanceof Runaway)
      return `“${pattern}” ${error.message}, which could run for ever on a long text.`;
    throw error;
  }
}

/** Whether a pattern begins with any characters at all, so that a search that fails at one place fails at all behind it. */
export function beginsWithAnything(pattern: string): boolean {
  return /^\(?(?:\?:)?\.[*+]/.test(pattern) && !pattern.includes('|');
}

class Runaway extends Error {}

const MOST_GROWTH = 2;
/** A bounded repetition counts as an open one from here. */
const MANY = 10;

/** Characters that stand for all: ASCII, letters of other scripts, a mark, and those that the pattern names. */
function samplesOf(pattern: string): readonly string[] {
  const ascii = Array.from({ length: 95 }, (_, i) => String.fromCharCode(0x20 + i));
  return [...new Set([...ascii, ...'\t\n©éßЖ漢א\u0301', ...pattern])];
}
type Samples = readonly string[];
type Chars = ReadonlySet<string>;

/** What a stretch of the pattern takes: one character, or a repetition; must it take something, and may it fail? */
interface Part {
  readonly chars: Chars;
  readonly repeats: boolean;
  readonly mustTake: boolean;
}

function growth(way: AST.Alternative, samples: Samples): number {
  const parts = partsOf(way.elements, samples);
  // What stands last and only repeats never fails, so that nothing is tried again.
  while (parts.at(-1)?.repeats && !endsInAssertion(way)) parts.pop();
  let longest = 0;
  let chain: Chars[] = [];
  for (const part of parts) {
    if (part.repeats) {
      const shares = chain.length > 0 && overlap(chain.at(-1)!, part.chars);
      chain = shares ? [...chain, part.chars] : [part.chars];
      longest = Math.max(longest, chain.length);
    } else if (part.mustTake && chain.length > 0 && !overlap(chain.at(-1)!, part.chars)) chain = [];
  }
  return longest + (longest === 0 || isAnchored(way) ? 0 : 1);
}

const endsInAssertion = (way: AST.Alternative) => way.elements.at(-1)?.type === 'Assertion';

function isAnchored({ elements, raw }: AST.Alternative): boolean {
  const [first] = elements;
  return (first?.type === 'Assertion' && first.kind === 'start') || beginsWithAnything(raw);
}

function partsOf(elements: readonly AST.Element[], samples: Samples): Part[] {
  return elements.flatMap((e) => partOf(e, samples));
}

function partOf(element: AST.Element, samples: Samples): Part[] {
  switch (element.type) {
    case 'Assertion':
      if (element.kind !== 'lookahead' && element.kind !== 'lookbehind') return [];
      return waysOf(element.alternatives, samples).map((p) => ({ ...p, mustTake: false }));
    case 'Backreference':
      throw new Runaway('refers back to a group');
    case 'Group':
    case 'CapturingGroup':
      return waysOf(element.alternatives, samples);
    case 'Quantifier':
      return repetition(element, samples);
    default:
      return [{ chars: charsOf(element.raw, samples), repeats: false, mustTake: true }];
  }
}

/** Of several ways the parts that repeat most, taking what any of them takes. */
function waysOf(ways: readonly AST.Alternative[], samples: Samples): Part[] {
  const all = ways.map((w) => partsOf(w.elements, samples));
  if (all.length === 1) return all[0]!;
  const chars = union(all.flat());
  const most = Math.max(...all.map((parts) => parts.filter((p) => p.repeats).length));
  const mustTake = all.every((parts) => parts.some((p) => p.mustTake));
  return most > 0
    ? Array.from({ length: most }, () => ({ chars, repeats: true, mustTake: false }))
    : [{ chars, repeats: false, mustTake }];
}

function repetition({ element, min, max }: AST.Quantifier, samples: Samples): Part[] {
  const inner = partOf(element, samples);
  if (max <= 1) return inner.map((p) => ({ ...p, mustTake: p.mustTake && min > 0 }));
  if (element.type === 'Group' || element.type === 'CapturingGroup') {
    if (element.alternatives.some((w) => w.elements.some(changesLength)))
      throw new Runaway('repeats something that repeats itself');
    const starts = element.alternatives.map((w) => partsOf(w.elements.slice(0, 1), samples)[0]?.chars);
    if (starts.some((a, i) => a && starts.slice(i + 1).some((b) => b && overlap(a, b))))
      throw new Runaway('repeats a choice between things that begin alike');
  }
  const chars = union(inner);
  return max >= MANY
    ? [
        { chars, repeats: true, mustTake: false },
        ...(min > 0 ? [{ chars, repeats: false, mustTake: true }] : []),
      ]
    : [{ chars, repeats: false, mustTake: min > 0 }];
}

/** Whether what an element takes can be of different lengths. */
function changesLength(element: AST.Element): boolean {
  if (element.type === 'Quantifier') return element.min !== element.max || changesLength(element.element);
  if (element.type === 'Group' || element.type === 'CapturingGroup')
    return element.alternatives.some((w) => w.elements.some(changesLength));
  return element.type === 'Backreference';
}

function charsOf(raw: string, samples: Samples): Chars {
  const expression = new RegExp(`^(?:${raw})$`, 'u');
  return new Set(samples.filter((c) => expression.test(c)));
}
const union = (parts: readonly Part[]): Chars => new Set(parts.flatMap((p) => [...p.chars]));
const overlap = (a: Chars, b: Chars): boolean => [...a].some((c) => b.has(c));
