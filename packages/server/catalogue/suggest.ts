import type { Suggestion } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { countedOn } from '@osier/core/piles';
import { foldedWords } from '@osier/core/text';
import type { Services } from '../services';
import { headingsBeginning } from '../headings/queries';
import { copiesWithBarcode, pilesLike } from './queries';
import { bestTitles, rowsOf } from './queries.pages';

/** Shorter than this, nearly everything would be meant. */
const LEAST = 3;
const TITLES = 5;
const OTHERS = 3;

/** What a text may mean that is being typed: the best titles, then headings, copies and piles. */
export async function suggest({ store }: Services, q: string): Promise<{ rows: Suggestion[] }> {
  const typed = q.trim();
  if (typed.length < LEAST) return { rows: [] };
  const digits = typed.replace(/[\s-]/g, '');
  if (/^\d+$/.test(digits) && digits.length >= 4) {
    const copies = await copiesWithBarcode(store, digits, TITLES);
    return {
      rows: copies.map((c) => ({
        ...{ as: 'copy' as const, id: c.id, record: c.record },
        ...{ text: groupedBarcode(c.barcode), more: c.title },
      })),
    };
  }
  const words = foldedWords(typed);
  if (words.length === 0) return { rows: [] };
  const [placed, headings, piles] = await Promise.all([
    bestTitles(store, words, TITLES),
    headingsBeginning(store, typed, OTHERS),
    pilesLike(store, typed, OTHERS),
  ]);
  const titles = await rowsOf(
    store,
    placed.map((p) => p.id),
  );
  return {
    rows: [
      ...titles.map((r) => ({
        ...{ as: 'record' as const, id: r.id, record: null, text: r.title },
        more: [r.author, r.year].filter(Boolean).join(', '),
      })),
      ...headings.map((h) => ({
        as: 'heading' as const,
        id: h.id,
        record: null,
        text: h.text,
        more: h.kind,
      })),
      ...piles.map((p) => ({
        ...{ as: 'pile' as const, id: p.id, record: null, text: p.value.name },
        more: countedOn(p.value.of, p.count),
      })),
    ],
  };
}
