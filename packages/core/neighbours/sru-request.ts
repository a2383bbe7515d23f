import { cqlClause, cqlJoined, cqlText, type CqlNode } from '../query';
import type { Neighbour, NeighbourIndexes } from './neighbour';
import type { Sought } from './sought';

/** What looks for a thing at a neighbour, in CQL; null where it has no index for it. */
export function soughtCql(sought: Sought, indexes: NeighbourIndexes): string | null {
  const node = nodeOf(sought, indexes);
  return node && cqlText({ node, sort: [] });
}

function nodeOf(sought: Sought, indexes: NeighbourIndexes): CqlNode | null {
  if (sought.by === 'isbn') {
    if (indexes.isbn === '') return null;
    const forms = [sought.isbn13, sought.isbn10].filter(Boolean);
    return cqlJoined(
      'or',
      forms.map((n) => cqlClause(indexes.isbn, '=', n)),
    );
  }
  if (sought.by !== 'words') {
    const index = indexes[sought.by];
    return index === '' ? null : cqlClause(index, '=', sought.number);
  }
  const { title, name } = sought;
  const part = (index: string, text: string): CqlNode[] => {
    const used = index || indexes.words;
    return text === '' || used === '' ? [] : [cqlClause(used, 'all', text)];
  };
  // Words alone may be of the title or of the name.
  return cqlJoined(
    'and',
    name === ''
      ? part(indexes.words || indexes.title, title)
      : [...part(indexes.title, title), ...part(indexes.name, name)],
  );
}

type Spoken = Pick<Neighbour, 'address' | 'version' | 'schema' | 'most'>;

/** The address that searches: `from` is the place of the first record, from 1. */
export function searchAddress({ address, version, schema, most }: Spoken, query: string, from = 1): string {
  const said: Record<string, string> =
    version === '2.0'
      ? { query, queryType: 'cql', recordXMLEscaping: 'xml' }
      : { operation: 'searchRetrieve', version, query, recordPacking: 'xml' };
  return withSaid(address, {
    ...said,
    recordSchema: schema,
    startRecord: String(from),
    maximumRecords: String(most),
  });
}

/** The address of the explain record. In SRU 2.0 it is what an address without parameters answers. */
export const explainAddress = ({ address, version }: Pick<Neighbour, 'address' | 'version'>): string =>
  version === '2.0' ? address : withSaid(address, { operation: 'explain', version });

function withSaid(address: string, said: Readonly<Record<string, string>>): string {
  const url = new URL(address);
  for (const [name, value] of Object.entries(said)) url.searchParams.set(name, value);
  // Some servers take a plus sign for itself.
  url.search = url.search.replace(/\+/g, '%20');
  return url.href;
}
