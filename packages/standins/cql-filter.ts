import { isbns, issns, lccns } from '@osier/core/access';
import { controlValue, isData, runningText, type MarcRecord } from '@osier/core/marc';
import type { CqlClause, CqlNode } from '@osier/core/query';
import { readIsbn } from '@osier/core/access';
import { fold } from '@osier/core/text';

/** What a simulated catalogue says of a query that it does not take (SRU diagnostics). */
export class NotTaken extends Error {
  constructor(
    readonly code: number,
    message: string,
    readonly details: string,
  ) {
    super(message);
  }
}

/** Whether a record is found by a query. Indexes count by their last part, whatever context set they are of. */
export function isFoundBy(record: MarcRecord, node: CqlNode): boolean {
  if (node.type === 'prefixed') return isFoundBy(record, node.of);
  if (node.type === 'clause') return holds(record, node);
  if (node.by === 'prox') throw new NotTaken(37, 'Unsupported boolean operator', 'prox');
  const left = isFoundBy(record, node.left);
  const right = isFoundBy(record, node.right);
  return node.by === 'and' ? left && right : node.by === 'or' ? left || right : left && !right;
}

const bare = (term: string) => term.replace(/\\(.)/gs, '$1');
const NUMBERS: Readonly<Record<string, (record: MarcRecord, term: string) => boolean>> = {
  isbn: (r, term) => isbns(r).includes(readIsbn(term)?.isbn13 ?? ''),
  issn: (r, term) => issns(r).includes(term.replace(/\D/g, '')),
  lccn: (r, term) => lccns(r).includes(term.toLowerCase()),
  identifier: (r, term) => controlValue(r, '001') === term,
};
const WORDS: Readonly<Record<string, RegExp>> = {
  title: /^(245|246)$/,
  creator: /^[17]00$/,
  // Of authority records: kept forms and see-froms.
  name: /^[14](00|10|11|50|51)$/,
  anywhere: /^(1..|245|246|250|26.|4..|5..|6..|7..)$/,
  serverchoice: /^(1..|245|6..|7..)$/,
};

function holds(record: MarcRecord, { index, relation, term }: CqlClause): boolean {
  const name = (/[^.]*$/.exec(index)![0] || 'serverChoice').toLowerCase();
  const number = NUMBERS[name];
  if (number) return number(record, bare(term));
  const tags = WORDS[name];
  if (!tags) throw new NotTaken(16, 'Unsupported index', index);
  const by = relation?.name.toLowerCase() ?? '=';
  if (!['=', 'all', 'any', 'adj'].includes(by)) throw new NotTaken(19, 'Unsupported relation', by);
  const text = ` ${fold(record.fields.flatMap((f) => (isData(f) && tags.test(f.tag) ? [runningText(f)] : [])).join(' '))} `;
  // A star at the end of a word stands for whatever follows.
  const words = term.split(/\s+/).flatMap((chunk) => {
    const parts = fold(bare(chunk.replace(/\*$/, '')))
      .split(' ')
      .filter(Boolean);
    return parts.map((w, i) => (chunk.endsWith('*') && i === parts.length - 1 ? w : `${w} `));
  });
  if (by === '=' || by === 'adj') return text.includes(` ${words.join('')}`);
  return by === 'any'
    ? words.some((w) => text.includes(` ${w}`))
    : words.every((w) => text.includes(` ${w}`));
}
