import type { MarcBody, RecordDetail } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { callNumberText, offerCallNumbers } from '@osier/core/callnumbers';
import { namesInShort } from '@osier/core/acts';
import { counted, creation, update } from '@osier/core/changes';
import type { Finding } from '@osier/core/checks';
import type { Change } from '@osier/core/kinds';
import { headingFrom, headingIdentity, headingsOf, withKeptForms } from '@osier/core/headings';
import { dueOf, withKnownLocals } from '@osier/core/holdings';
import type { Field, MarcRecord } from '@osier/core/marc';
import { historyOf } from '../daybook/entries';
import { notFound, ProblemError, wrong } from '../http/problem';
import { followedBy } from '../headings/follow';
import { nearAllowed } from '../headings/near';
import { localFieldsOf } from '../copies/local-fields';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { headingsByKey, knownHeadingKeys, recordLedTo } from './queries';

/** A record with all that hangs on it. */
export async function recordDetail(services: Services, id: number): Promise<RecordDetail> {
  const { store } = services;
  const [record, hidden, house, checker, [holdings, copies, said], history] = await Promise.all([
    store.read('record', id),
    store.read('suppressed', id),
    store.rulesNow(),
    store.checkerNow(),
    standingOf(services, id),
    historyOf(services, id),
  ]);
  if (!record) {
    // The number of a record that was merged away leads to the one that was kept.
    const kept = await recordLedTo(store, id);
    if (kept === null) throw notFound(`Record ${id}`);
    return recordDetail(services, kept);
  }
  const uses = headingsOf(record.value);
  const known = await headingsByKey(
    store,
    uses.map((u) => u.key),
  );
  const used = new Set(uses.map(headingIdentity));
  return {
    id,
    version: record.version,
    marc: record.value,
    suppressed: hidden !== null,
    brief: briefOf(record.value),
    findings: [...checker.check(record.value)],
    holdings: holdings.map((h) => ({
      id: h.id,
      version: h.version,
      holding: h.value,
      callNumber: callNumberText(h.value),
      copies: copies
        .filter((c) => c.value.holding === h.id)
        .map((c) => ({
          id: c.id,
          version: c.version,
          copy: c.value,
          due: dueOf(said.of(c.value.barcode)),
          loan: said.of(c.value.barcode).state,
        })),
    })),
    offers: offerCallNumbers(record.value, house),
    headings: known.filter((k) => used.has(`${k.kind} ${k.key}`)),
    history,
  };
}

/** What of a record stands on the shelf, and what the loans desk says of it. */
async function standingOf({ store, loans }: Services, record: number) {
  const [fields, holdings, held] = await Promise.all([
    localFieldsOf(store),
    store.find('holding', {
      where: { record },
      order: [
        ['branch', 'ASC'],
        ['shelf_key', 'ASC'],
        ['id', 'ASC'],
      ],
    }),
    store.find('copy', { where: { record }, order: [['id', 'ASC']] }),
  ]);
  const copies = held.map((c) => ({ ...c, value: withKnownLocals(c.value, fields) }));
  return [holdings, copies, await loans.ask(copies.map((c) => c.value.barcode))] as const;
}

/** The record of a request's body; a field is a control field or a data field, never both. */
export function marcOf(body: MarcBody): MarcRecord {
  const fields = body.fields.map((f, i): Field => {
    if (f.tag.startsWith('00')) {
      if (f.value === undefined || f.subfields?.length)
        throw wrong(`fields[${i}]`, `Field ${f.tag} is a control field: it has a value and no subfields.`);
      return { tag: f.tag, value: f.value };
    }
    if (!f.subfields?.length)
      throw new ProblemError(422, `Field ${f.tag} has no subfield.`, {
        fields: [{ field: `fields[${i}]`, message: `Field ${f.tag} has no subfield.` }],
      });
    return {
      tag: f.tag,
      ind1: f.ind1 ?? ' ',
      ind2: f.ind2 ?? ' ',
      subfields: f.subfields.map((s) => ({ code: s.code, value: s.value.normalize('NFC') })),
    };
  });
  return { leader: body.leader, fields };
}

/** New headings for names and subjects of these records that no heading knows yet. */
export async function newHeadings(
  store: Store,
  records: readonly MarcRecord[],
): Promise<Change<'heading'>[]> {
  const uses = new Map(records.flatMap(headingsOf).map((u) => [headingIdentity(u), u]));
  if (uses.size === 0) return [];
  const known = await knownHeadingKeys(
    store,
    [...uses.values()].map((u) => u.key),
  );
  for (const k of known) uses.delete(`${k.kind} ${k.key}`);
  if (uses.size === 0) return [];
  let id = await store.nextIds('heading', uses.size);
  return [...uses.values()].map((u) => creation('heading', id++, headingFrom(u)));
}

/** The errors that the checks of the library find in a record. */
export const recordErrors = async (store: Store, marc: MarcRecord): Promise<Finding[]> =>
  (await store.checkerNow()).check(marc).filter((f) => f.severity === 'error');

/** The errors of a record in a sentence. */
export const errorsSentence = (errors: readonly Finding[]): string =>
  `The record has ${counted(errors.length, 'error')}: ${namesInShort(errors.map((f) => f.message.replace(/\.$/, '')))}.`;

/** A record with errors is saved only when the person says so; gives how many it has. */
export async function errorsAllowed(store: Store, marc: MarcRecord, withErrors: boolean): Promise<number> {
  const errors = await recordErrors(store, marc);
  if (errors.length && !withErrors) throw wrong('withErrors', errorsSentence(errors));
  return errors.length;
}

/** Saves a record; a version that is no longer the newest is a conflict with both sides. */
export const saveRecord = (
  { store }: Services,
  person: number,
  id: number,
  version: number,
  marc: MarcRecord,
  withErrors = false,
): Promise<{ entry: number; version: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const held = await s.read('record', id);
    if (!held) throw notFound(`Record ${id}`);
    const { record: kept, notes } = withKeptForms(marc, await followedBy(s, [marc]));
    const errors = await errorsAllowed(s, kept, withErrors);
    const made = await newHeadings(s, [kept]);
    await nearAllowed(s, made, withErrors);
    const did = {
      act: 'edit-record' as const,
      names: { title: briefOf(kept).title },
      tags: changedTags(held.value, kept),
      ...(errors && { errors }),
      notes,
    };
    const changes = [update('record', { ...held, version }, kept), ...made];
    return { did, version: version + 1, changes };
  });

/** Tags of the fields in which two records differ. */
export function changedTags(a: MarcRecord, b: MarcRecord): string[] {
  const rows = (r: MarcRecord) =>
    new Set([`LDR${r.leader}`, ...r.fields.map((f) => f.tag + JSON.stringify(f))]);
  const [before, after] = [rows(a), rows(b)];
  const differing = [
    ...[...before].filter((x) => !after.has(x)),
    ...[...after].filter((x) => !before.has(x)),
  ];
  return [...new Set(differing.map((x) => x.slice(0, 3)))].sort();
}
