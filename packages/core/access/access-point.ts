/** What is sought at an access point: words of a text, a text from its beginning, or an exact key, number, date or code. */
export type AccessType = 'words' | 'phrase' | 'key' | 'number' | 'date' | 'code';

/** A value found at an access point; where keys are told apart by groups (headings by kind and vocabulary), with its group. */
export interface FoundValue {
  readonly text: string;
  readonly group?: string;
}

/** One way in which an object is found, sorted or counted. `T` is what it is found in. */
export interface AccessPoint<T, N extends string = string> {
  readonly name: N;
  /** As a person knows it. */
  readonly title: string;
  readonly type: AccessType;
  /** It rises when what is extracted, or how it is normalised, becomes another; a store then makes the keys anew. */
  readonly version: number;
  /** What an object has there, as written, in order. */
  readonly extract: (value: T) => readonly FoundValue[];
  /** The form in which a text is kept and looked for; empty for one that is none. */
  readonly normalise: (text: string) => string;
  /** Lists can be counted and narrowed by it. */
  readonly facet?: true;
  /** Lists can be sorted by it. */
  readonly sorts?: true;
}

/** A key under which an object is found. */
export interface AccessKey {
  readonly key: string;
  readonly group?: string;
}

/** The keys of an object at one access point, each once, in order; what is no key is left out. */
export function keysAt<T>(point: AccessPoint<T>, value: T): AccessKey[] {
  const keys = new Map<string, AccessKey>();
  for (const { text, group } of point.extract(value)) {
    const key = point.normalise(text);
    if (key !== '') keys.set(`${group ?? ''}\0${key}`, group === undefined ? { key } : { key, group });
  }
  return [...keys.values()];
}

/** The words of an object at one access point, as an index takes them: normalised, with blanks between. */
export const wordsAt = <T>(point: AccessPoint<T>, value: T): string =>
  point.normalise(
    point
      .extract(value)
      .map((v) => v.text)
      .join(' '),
  );

/** The first key of an object at a point, for a column; empty for none. */
export const columnAt = <T>(point: AccessPoint<T>, value: T): string => keysAt(point, value)[0]?.key ?? '';

/** The columns of an object that have an access point, each under the name of its point. */
export const columnsAt = <T, N extends string>(
  points: readonly AccessPoint<T, N>[],
  value: T,
): { readonly [K in N]: string } =>
  Object.fromEntries(points.map((point) => [point.name, columnAt(point, value)])) as { [K in N]: string };

/** A point at which an object has one text, which is kept as it is. */
export const plainPoint = <T, const N extends string>(
  point: Pick<AccessPoint<T, N>, 'name' | 'title' | 'type' | 'facet' | 'sorts'> & {
    readonly version?: number;
  },
  text: (value: T) => string,
): AccessPoint<T, N> => ({
  version: 1,
  ...point,
  extract: (value) => found([text(value)]),
  normalise: (kept) => kept,
});

/** Texts as found values. */
export const found = (texts: readonly string[]): FoundValue[] => texts.map((text) => ({ text }));
