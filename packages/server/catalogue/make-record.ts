import type { BriefBody, NewRecordBody, Person } from '@osier/contract';
import { briefOf, readIsbn } from '@osier/core/access';
import type { Act } from '@osier/core/acts';
import { offerCallNumbers } from '@osier/core/callnumbers';
import { counted, creation } from '@osier/core/changes';
import { briefRecord, isEmptyField } from '@osier/core/editing';
import { withKeptForms } from '@osier/core/headings';
import { controlValue, type MarcRecord } from '@osier/core/marc';
import { mayOverruleRolls } from '../copies/barcodes';
import { newCopy } from '../copies/copies';
import { newHolding } from '../copies/holdings';
import { followedBy } from '../headings/follow';
import { nearAllowed } from '../headings/near';
import { ProblemError, wrong } from '../http/problem';
import type { Services } from '../services';
import { today } from '../day';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { matchesHeld } from './alike';
import { errorsAllowed, marcOf, newHeadings } from './records';

/** Adds a record. One that the catalogue may hold already is added only when that was shown. */
export const makeRecord = (
  { store }: Services,
  person: number,
  body: NewRecordBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const sent = marcOf(body.marc);
    if (sent.fields.every((f) => f.tag.startsWith('00') || isEmptyField(f)))
      throw wrong('marc', 'The record has no text yet.');
    const { record: kept } = withKeptForms(sent, await followedBy(s, [sent]));
    const alike = await refuseUnseen(s, kept, body.despite);
    const id = await s.nextIds('record', 1);
    const record = numbered(kept, id);
    const errors = await errorsAllowed(s, record, body.withErrors);
    const made = await newHeadings(s, [record]);
    await nearAllowed(s, made, body.withErrors);
    const did: Act = {
      act: 'make-record',
      names: { title: briefOf(record).title },
      counts: { errors, alike },
    };
    return { did, id, changes: [creation('record', id, record), ...made] };
  });

/** Adds a brief record with its holding and copy, as one entry. */
export const makeBrief = (
  { store }: Services,
  person: Person,
  body: BriefBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person.id, async (s) => {
    const { title, name, year } = body;
    const isbn = readIsbn(body.isbn)?.isbn13 ?? '';
    const made = briefRecord(
      { title, name, isbn, class: body.class, year, language: body.language },
      today(),
    );
    const { record: kept } = withKeptForms(made, await followedBy(s, [made]));
    const alike = await refuseUnseen(s, kept, body.despite);
    const id = await s.nextIds('record', 1);
    const record = numbered(kept, id);
    const [offer] = offerCallNumbers(record, (await s.house()).value, {
      branch: body.branch,
      location: body.location,
      type: body.type,
    });
    const { place, ...holding } = await newHolding(s, {
      record: id,
      branch: body.branch,
      location: body.location,
      scheme: offer?.scheme ?? 'own',
      prefix: offer?.prefix ?? '',
      class: offer?.class ?? body.class,
      item: offer?.item ?? '',
      year: offer?.year ?? '',
      suffix: offer?.suffix ?? '',
      note: '',
      staffNote: '',
    });
    const { copy, overruled } = await newCopy(
      s,
      { ...NO_COPY, ...copyOf(body), status: body.status, holding: holding.id },
      id,
      mayOverruleRolls(person),
    );
    const did: Act = {
      act: 'make-brief',
      names: { title: briefOf(record).title, barcode: copy.after.barcode, location: place },
      counts: { alike },
      ...(overruled && { overruled }),
    };
    const headings = await newHeadings(s, [record]);
    return { did, id, changes: [creation('record', id, record), ...headings, holding, copy] };
  });

const copyOf = ({ barcode, type, price, currency, keepBarcode }: BriefBody) => ({
  ...{ barcode, type, price, currency, keepBarcode },
});
const NO_COPY = {
  ...{ part: '', fund: '', supplier: '', acquired: '', condition: '', note: '', staffNote: '' },
  loanRule: 'lends' as const,
  local: [],
};

/** A record with its number in the catalogue as control number, where it has none (MARC 21, 001: mandatory). */
export const numbered = (record: MarcRecord, id: number): MarcRecord =>
  controlValue(record, '001')?.trim()
    ? record
    : {
        ...record,
        fields: [{ tag: '001', value: String(id) }, ...record.fields.filter((f) => f.tag !== '001')],
      };

/** Refuses a record of which others may be the same that were not shown; gives how many are alike. */
export async function refuseUnseen(
  store: Store,
  marc: MarcRecord,
  despite: readonly number[],
): Promise<number> {
  const matches = await matchesHeld(store, marc);
  const unseen = matches.filter((m) => !despite.includes(m.record));
  if (unseen.length === 0) return matches.length;
  const held = await store.readMany(
    'record',
    unseen.slice(0, 3).map((m) => m.record),
  );
  const named = held.map((r) => `“${briefOf(r.value).title}” (record ${r.id})`).join(', ');
  throw new ProblemError(
    409,
    `${counted(unseen.length, 'record')} of the catalogue may be the same: ${named}. Look at ${unseen.length === 1 ? 'it' : 'them'} first.`,
  );
}
