/** How a neighbour is spoken to. */
export const PROTOCOLS = ['sru', 'z39.50'] as const;
export type Protocol = (typeof PROTOCOLS)[number];

/** Versions of SRU that are spoken (Library of Congress, SRU 1.1 and 1.2; OASIS searchRetrieve 1.0, which is SRU 2.0). */
export const SRU_VERSIONS = ['1.1', '1.2', '2.0'] as const;
export type SruVersion = (typeof SRU_VERSIONS)[number];

/** By what a neighbour can be searched. */
export const LOOKED_BY = ['isbn', 'issn', 'lccn', 'control', 'title', 'name', 'words'] as const;
export type LookedBy = (typeof LOOKED_BY)[number];

/** The names of a neighbour's indexes; '' for one that it has not. */
export type NeighbourIndexes = { readonly [B in LookedBy]: string };

/** A library whose records may be copied, as it is set up. */
export interface Neighbour {
  readonly name: string;
  readonly protocol: Protocol;
  /** SRU: the address with its path. Z39.50: `host:port`. */
  readonly address: string;
  /** Z39.50 only: the name of its database. */
  readonly database: string;
  readonly version: SruVersion;
  /** The record schema that is asked for: `marcxml`, or the identifier of the MARC 21 XML schema. */
  readonly schema: string;
  readonly indexes: NeighbourIndexes;
  /** Its place among the others: the lowest is asked first. */
  readonly order: number;
  /** Seconds after which it is not waited for any longer. */
  readonly seconds: number;
  /** Records that are asked for at once. */
  readonly most: number;
  /** From 1 to 5: how good its cataloguing is held to be. */
  readonly trust: number;
  /** Types of record that it is good for, as `materialOf` names them; none for all. */
  readonly materials: readonly string[];
  /** The number or name of the recipe that is run on what comes from it; '' for none. */
  readonly recipe: string;
  /** The name that it is signed on with; '' where it asks for none. */
  readonly user: string;
  /** The password, sealed by the server; '' for none. */
  readonly secret: string;
  /** It is asked when a book is looked for. */
  readonly isUsed: boolean;
}

/** Names of indexes by the context sets that are published with SRU (CQL 1.2, Dublin Core 1.1, Bath profile 2, Record metadata 1.1). */
export const USUAL_INDEXES: NeighbourIndexes = {
  isbn: 'bath.isbn',
  issn: 'bath.issn',
  lccn: 'bath.lccn',
  control: 'rec.identifier',
  title: 'dc.title',
  name: 'dc.creator',
  words: 'cql.anywhere',
};

/** Use attributes of the Bib-1 attribute set (Z39.50, ATR.3), as they stand for the same. */
export const USUAL_ATTRIBUTES: NeighbourIndexes = {
  isbn: '7',
  issn: '8',
  lccn: '9',
  control: '12',
  title: '4',
  name: '1003',
  words: '1016',
};

/** A neighbour of which nothing has been typed yet. */
export const NEW_NEIGHBOUR: Neighbour = {
  name: '',
  protocol: 'sru',
  address: '',
  database: '',
  version: '1.2',
  schema: 'marcxml',
  indexes: USUAL_INDEXES,
  order: 1,
  seconds: 8,
  most: 10,
  trust: 3,
  materials: [],
  recipe: '',
  user: '',
  secret: '',
  isUsed: true,
};

/** What is wrong with the address of a neighbour; null for nothing. */
export function addressProblem(address: string, protocol: Protocol): string | null {
  if (protocol === 'z39.50')
    return /^[\w.-]+:\d{1,5}$/.test(address) && Number(address.split(':')[1]) <= 65_535
      ? null
      : 'An address for Z39.50 is a name and a port, such as catalogue.example:210.';
  if (!URL.canParse(address)) return 'Type the whole address, such as https://catalogue.example/sru.';
  const { protocol: scheme, username, password, hash, search } = new URL(address);
  if (scheme !== 'http:' && scheme !== 'https:') return 'The address must begin with http:// or https://.';
  if (username || password) return 'Type name and password in their own fields, not in the address.';
  if (hash) return 'Leave out what is behind # in the address.';
  if (/[?&](operation|query|version)=/i.test(search))
    return 'Leave out operation, version and query: they are added for each search.';
  return null;
}

/** Neighbours in the order in which they are asked. */
export const inOrder = <T extends { readonly id: number; readonly neighbour: Pick<Neighbour, 'order'> }>(
  neighbours: readonly T[],
): T[] => [...neighbours].sort((a, b) => a.neighbour.order - b.neighbour.order || a.id - b.id);

/** Neighbours in rounds: those of one place in the order are asked together, the next ones when none of them has it; all at once in one. */
export function inRounds<T extends { readonly id: number; readonly neighbour: Pick<Neighbour, 'order'> }>(
  neighbours: readonly T[],
  isAtOnce: boolean,
): T[][] {
  const rounds = new Map<number, T[]>();
  for (const n of inOrder(neighbours)) {
    const place = isAtOnce ? 0 : n.neighbour.order;
    rounds.set(place, [...(rounds.get(place) ?? []), n]);
  }
  return [...rounds.values()];
}
