import { SaxesParser } from 'saxes';
import { answerText } from './answer-text';
import { readLoosely } from './read-loosely';
import { type LookedBy, type NeighbourIndexes } from './neighbour';

/** What a server says of itself (ZeeRex, the explain record of SRU). */
export interface Explained {
  readonly title: string;
  /** Its indexes, as `set.name`. */
  readonly indexes: readonly string[];
  /** Names and identifiers of its record schemas. */
  readonly schemas: readonly { readonly name: string; readonly identifier: string }[];
  /** The most records it gives at once; null where it does not say. */
  readonly most: number | null;
}

const local = (name: string): string => name.slice(name.indexOf(':') + 1);
const MOST_INDEXES = 2000;

/** Reads an explain record, or an explain response around one; null for another thing. */
export function readExplain(bytes: Uint8Array): Explained | null {
  const { text } = answerText(bytes);
  const path: string[] = [];
  const indexes = new Set<string>();
  const schemas: { name: string; identifier: string }[] = [];
  let [title, set, content]: [string, string, string] = ['', '', ''];
  let most: number | null = null;
  let isExplain = false;
  let setting = '';
  const parser = new SaxesParser({ xmlns: false });
  parser.on('opentag', ({ name, attributes }) => {
    const element = local(name);
    path.push(element);
    content = '';
    const said = (key: string): string => {
      const value: unknown = attributes[key];
      return typeof value === 'string' ? value : '';
    };
    if (element === 'explain') isExplain = true;
    if (element === 'name' && path.includes('indexInfo')) set = said('set');
    if (element === 'schema' && path.includes('schemaInfo'))
      schemas.push({ name: said('name'), identifier: said('identifier') });
    if (element === 'default' || element === 'setting') setting = said('type');
  });
  parser.on('text', (t) => (content += t));
  parser.on('closetag', ({ name }) => {
    const element = local(name);
    const value = content.trim();
    if (element === 'name' && path.includes('indexInfo') && value && indexes.size < MOST_INDEXES)
      indexes.add(set && !value.includes('.') ? `${set}.${value}` : value);
    if (element === 'title' && path.includes('databaseInfo') && title === '') title = value;
    if (
      (element === 'default' || element === 'setting') &&
      setting === 'maximumRecords' &&
      /^\d+$/.test(value)
    )
      most = Number(value);
    path.pop();
    content = '';
  });
  readLoosely(parser, text);
  return isExplain
    ? { title, indexes: [...indexes], schemas: schemas.filter((s) => s.name || s.identifier), most }
    : null;
}

/** What indexes for each thing are usually called, the likelier first. */
const CALLED: { readonly [B in LookedBy]: readonly RegExp[] } = {
  isbn: [/^bath\.isbn$/i, /\.isbn$/i, /^isbn$/i],
  issn: [/^bath\.issn$/i, /\.issn$/i, /^issn$/i],
  lccn: [/^bath\.lccn$/i, /\.lccn$/i, /^lccn$/i],
  control: [/^rec\.identifier$/i, /\.(recordidentifier|controlnumber|recordnumber)$/i, /^rec\.id$/i],
  title: [/^dc\.title$/i, /^bath\.title$/i, /\.title$/i, /^title$/i],
  name: [/^dc\.creator$/i, /^bath\.(name|author)$/i, /\.(creator|author|name)$/i, /^(author|name)$/i],
  words: [/^cql\.anywhere$/i, /^bath\.any$/i, /\.(anywhere|any|keywords?)$/i, /^cql\.serverchoice$/i],
};

/** The indexes of a server under which each thing is looked for; '' for what it seems to have none for. */
export const suggestedIndexes = ({ indexes }: Pick<Explained, 'indexes'>): NeighbourIndexes => {
  const of = (by: LookedBy): string =>
    CALLED[by]
      .map((called) => indexes.find((name) => called.test(name)))
      .find((name) => name !== undefined) ?? '';
  return {
    isbn: of('isbn'),
    issn: of('issn'),
    lccn: of('lccn'),
    control: of('control'),
    title: of('title'),
    name: of('name'),
    words: of('words'),
  };
};
