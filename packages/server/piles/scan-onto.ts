import type { PileScans } from '@osier/contract';
import { groupedBarcode, type BarcodeRule } from '@osier/core/barcodes';
import { creation } from '@osier/core/changes';
import type { ChangeSet } from '@osier/core/kinds';
import { newToPile, type PiledKind } from '@osier/core/piles';
import { recogniseInput } from '@osier/core/query';
import { copyWithBarcode, recordsWithIsbn } from '../catalogue/queries';
import { lastWithdrawn, nearBarcodes } from '../catalogue/search';
import { quoted } from '@osier/core/acts';
import type { Services } from '../services';
import { tryPlan } from '../store/commit';
import type { Store } from '../store/store';
import { scannedCodes } from '../copies/scanned';
import { pileThere } from './piles';
import { lyingOn } from './queries';
import { pileAct } from './pile-act';

/** The change set that puts things on a pile which do not lie there yet, and how many those are. */
export async function puttingOn(
  store: Store,
  pile: number,
  kind: PiledKind,
  wanted: readonly number[],
): Promise<{ changes: ChangeSet; added: number; repeated: number }> {
  const { fresh, repeated } = newToPile(new Set(await lyingOn(store, pile, kind, wanted)), wanted);
  const first = fresh.length ? await store.nextIds('piled', fresh.length) : 0;
  return {
    changes: fresh.map((object, i) => creation('piled', first + i, { pile, kind, object })),
    added: fresh.length,
    repeated,
  };
}

type Met = { readonly objects: readonly number[] } | { readonly message: string };

/** What a scan means on a pile of copies or of records. */
async function meets(store: Store, of: PiledKind, raw: string, rules: readonly BarcodeRule[]): Promise<Met> {
  const scanned = recogniseInput(raw, rules);
  if (of === 'record' && scanned.as === 'record')
    return (await store.read('record', scanned.id))
      ? { objects: [scanned.id] }
      : { message: `There is no record ${scanned.id}.` };
  if (of === 'record' && scanned.as === 'isbn') {
    const objects = await recordsWithIsbn(store, scanned.code);
    return objects.length ? { objects } : { message: `ISBN ${scanned.code} is not in the catalogue.` };
  }
  const [code = raw] = await scannedCodes(store, [raw]);
  const copy = await copyWithBarcode(store, code);
  if (copy) return { objects: [of === 'copy' ? copy.id : copy.record] };
  const gone = await lastWithdrawn(store, code);
  if (gone) return { message: `It was withdrawn on ${gone.value.withdrawnOn}: ${quoted(gone.value.title)}.` };
  const near = (await nearBarcodes(store, code)).slice(0, 3).map(groupedBarcode);
  return {
    message: `No copy has this barcode.${near.length ? ` Nearly the same: ${near.join(', ')}.` : ''}`,
  };
}

/** Puts what is scanned on a pile. What is not known is told, code by code, and keeps nothing else from going on. */
export async function scanOnto(
  { store }: Services,
  person: number,
  id: number,
  codes: readonly string[],
): Promise<PileScans> {
  const { entry, sentence, added, repeated, unknown } = await tryPlan(store, person, (s) =>
    planScans(s, id, codes),
  );
  return { entry, sentence, added, repeated, unknown };
}

async function planScans(store: Store, id: number, codes: readonly string[]) {
  const { value: pile } = await pileThere(store, id);
  const rules = (await store.house()).value.barcodes;
  const wanted: number[] = [];
  const unknown: PileScans['unknown'][number][] = [];
  for (const code of codes.map((c) => c.trim()).filter(Boolean)) {
    const met = await meets(store, pile.of, code, rules);
    if ('message' in met) unknown.push({ code, message: met.message });
    else wanted.push(...met.objects);
  }
  const { changes, added, repeated } = await puttingOn(store, id, pile.of, wanted);
  const did = pileAct(pile.name, { how: 'added', of: pile.of, count: added });
  return { did, changes, added, repeated, unknown };
}
