import type { BrowseList, BrowseRow } from '@osier/contract';
import { PUBLISHER, SERIES } from '@osier/core/access';
import { groupedBarcode } from '@osier/core/barcodes';
import { shelfPlaceOf, type PrefixOrder } from '@osier/core/callnumbers';
import {
  formText,
  headingGroup,
  headingsOf,
  normalText,
  seeFromKey,
  seeFroms,
  type Heading,
} from '@osier/core/headings';
import type { KindValue } from '@osier/core/kinds';
import type { MarcRecord } from '@osier/core/marc';
import { cqlClause, cqlText } from '@osier/core/query';
import { fold } from '@osier/core/text';
import { withoutArticle } from '@osier/core/find';
import { cursorOf, placeIn, type Place } from '../http/cursor';
import type { Store } from '../store/store';
import {
  barcodesFrom,
  headingsFrom,
  shelfFrom,
  termsFrom,
  titlesFrom,
  type HeadingEntry,
  type Way,
} from './queries';

/** An entry with its place. */
export type BrowseEntry = Omit<BrowseRow, 'place'> & { readonly place: Place };

/** A place in a list, as it is given out, and its entries from there, the nearest first. */
interface Standing {
  readonly cursor: string;
  readonly read: (store: Store, way: Way) => Promise<BrowseEntry[]>;
}

/** A list that is browsed: from where a text would stand, or from a place that was given out. */
export interface Browsed {
  readonly at: (text: string, cursor: string | undefined, order?: PrefixOrder) => Standing;
}

/** A list by the form of its places, which is where it begins; where a text stands; and its entries. */
const list = <P extends Place>(said: {
  readonly first: P;
  readonly placeOf: (text: string, order: PrefixOrder) => P;
  readonly from: (store: Store, place: P, way: Way) => Promise<BrowseEntry[]>;
}): Browsed => ({
  at: (text, cursor, order = []) => {
    const place =
      placeIn(cursor, said.first) ?? (text.trim() === '' ? said.first : said.placeOf(text, order));
    return { cursor: cursorOf(place), read: (store, way) => said.from(store, place, way) };
  },
});

const byQuery = (index: string, relation: string, text: string): BrowseEntry['to'] => ({
  as: 'search',
  q: cqlText({ node: cqlClause(index, relation, text), sort: [] }),
});

const titles = list<readonly [string]>({
  first: [''],
  placeOf: (text) => {
    const words = fold(text).split(' ').filter(Boolean);
    return [(withoutArticle(words) ?? words).join(' ')];
  },
  from: async (store, [sort], way) =>
    (await titlesFrom(store, sort, way)).map((t) => ({
      place: [t.sort],
      text: t.title,
      more: t.n === 1 ? [t.author, t.year].filter(Boolean).join(', ') : '',
      n: t.n,
      see: null,
      to: t.n === 1 ? { as: 'record', id: t.id, copy: null } : byQuery('title', '==', t.title),
    })),
});

/** Kinds of headings as a list tells them. */
const KIND_NAMES: Readonly<Record<string, string>> = {
  personal: 'person',
  corporate: 'corporate body',
  meeting: 'meeting',
  title: 'title',
  'name-title': 'name and title',
  topic: 'topic',
  place: 'place',
  period: 'period',
  genre: 'genre or form',
};

const headings = (index: 'name' | 'subject' | 'title', kinds: readonly string[]): Browsed =>
  list<readonly [string, string]>({
    first: ['', ''],
    placeOf: (text) => [normalText(text, true), ''],
    from: async (store, place, way) => {
      const entries = await headingsFrom(store, kinds, place, way);
      const [records, seen] = [
        await valuesOf(
          store,
          'record',
          entries.map((e) => (e.heading === null ? e.record : null)),
        ),
        await valuesOf(
          store,
          'heading',
          entries.map((e) => (e.isKept ? null : e.heading)),
        ),
      ];
      return entries.map((e): BrowseEntry => {
        const text =
          e.heading === null
            ? carriedText(records.get(e.record ?? 0), e)
            : e.isKept
              ? e.text
              : seeText(seen.get(e.heading), e);
        return {
          place: [e.key, e.group],
          text: text ?? e.key,
          more: KIND_NAMES[e.group.split(' ')[0]!] ?? '',
          n: e.n,
          see: e.isKept ? null : e.text,
          to: e.heading === null ? byQuery(index, '=', text ?? e.key) : { as: 'heading', id: e.heading },
        };
      });
    },
  });

/** The values of some objects by number; null stands for none. */
async function valuesOf<K extends 'record' | 'heading'>(
  store: Store,
  kind: K,
  ids: readonly (number | null)[],
): Promise<ReadonlyMap<number, KindValue<K>>> {
  const wanted = [...new Set(ids)].filter((id) => id !== null);
  return new Map((await store.readMany(kind, wanted)).map((h) => [h.id, h.value]));
}

/** A form as a record writes it. */
function carriedText(marc: MarcRecord | undefined, { key, group }: HeadingEntry): string | undefined {
  const use = marc && headingsOf(marc).find((h) => h.key === key && headingGroup(h) === group);
  return use && formText({ tag: '', ind1: use.ind1, ind2: ' ', subfields: use.subfields });
}
/** A see-from as its authority record writes it. */
function seeText(heading: Heading | undefined, { key }: HeadingEntry): string | undefined {
  const see = heading && seeFroms(heading).find((f) => seeFromKey(f) === key);
  return (
    see &&
    formText({ ...see, subfields: see.subfields.filter((s) => /[a-z]/.test(s.code) && s.code !== 'w') })
  );
}

const terms = (kind: 'series' | 'publisher', normalise: (text: string) => string): Browsed =>
  list<readonly [string, string]>({
    first: ['', ''],
    placeOf: (text) => [normalise(text), ''],
    from: async (store, place, way) =>
      (await termsFrom(store, kind, place, way)).map((t) => ({
        place: [t.key, t.text],
        text: t.text,
        more: '',
        n: t.n,
        see: null,
        to: byQuery(kind, '=', t.text),
      })),
  });

const callNumbers = list<readonly [string, number]>({
  first: ['', 0],
  placeOf: (text, order) => [shelfPlaceOf(text, order), 0],
  from: async (store, place, way) =>
    (await shelfFrom(store, place, way)).map((s) => ({
      place: [s.shelfKey, s.record],
      text: s.callNumber,
      more: [s.title, s.author, s.branches.replaceAll(',', ', ')].filter(Boolean).join(' · '),
      n: s.n,
      see: null,
      to: { as: 'record', id: s.record, copy: null },
    })),
});

const barcodes = list<readonly [string]>({
  first: [''],
  placeOf: (text) => [text.replace(/[\s-]/g, '')],
  from: async (store, [barcode], way) =>
    (await barcodesFrom(store, barcode, way)).map((b) => ({
      place: [b.barcode],
      text: groupedBarcode(b.barcode),
      more: [b.title, b.branch, b.status].join(' · '),
      n: 1,
      see: null,
      to: { as: 'record', id: b.record, copy: b.copy },
    })),
});

/** The lists by their names. */
export const LISTS: Readonly<Record<BrowseList, Browsed>> = {
  title: titles,
  name: headings('name', ['personal', 'corporate', 'meeting']),
  subject: headings('subject', ['topic', 'place', 'period']),
  genre: headings('subject', ['genre']),
  titleheading: headings('title', ['title', 'name-title']),
  series: terms('series', SERIES.normalise),
  publisher: terms('publisher', PUBLISHER.normalise),
  callnumber: callNumbers,
  barcode: barcodes,
};
