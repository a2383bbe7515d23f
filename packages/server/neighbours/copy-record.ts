import type { CopyRecordBody, Person } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import type { Act } from '@osier/core/acts';
import { creation } from '@osier/core/changes';
import { isEmptyField } from '@osier/core/editing';
import { withKeptForms } from '@osier/core/headings';
import { alikeRows } from '../catalogue/alike';
import { numbered, refuseUnseen } from '../catalogue/make-record';
import { errorsAllowed, marcOf, newHeadings } from '../catalogue/records';
import { mayOverruleRolls } from '../copies/barcodes';
import { planCopies } from '../copies/several';
import { followedBy } from '../headings/follow';
import { nearAllowed } from '../headings/near';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';

/** A record as it would be saved: see-froms give way to the kept forms, and what of the catalogue it may be is told. */
export async function prepareRecord({ store }: Services, body: CopyRecordBody['marc']) {
  const sent = marcOf(body);
  const { record, notes } = withKeptForms(sent, await followedBy(store, [sent]));
  return { marc: record, notes: [...notes], alike: await alikeRows(store, record) };
}

/** Adds a neighbour's record with its holdings and copies, as one entry. */
export const copyRecord = (
  { store }: Services,
  person: Person,
  body: CopyRecordBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person.id, async (s) => {
    const neighbour = await s.read('neighbour', body.neighbour);
    if (!neighbour) throw notFound(`Neighbour ${body.neighbour}`);
    const sent = marcOf(body.marc);
    if (sent.fields.every((f) => f.tag.startsWith('00') || isEmptyField(f)))
      throw wrong('marc', 'The record has no text yet.');
    const { record: kept } = withKeptForms(sent, await followedBy(s, [sent]));
    const alike = await refuseUnseen(s, kept, body.despite);
    const id = await s.nextIds('record', 1);
    const record = numbered(kept, id);
    const errors = await errorsAllowed(s, record, body.withErrors);
    const headings = await newHeadings(s, [record]);
    await nearAllowed(s, headings, body.withErrors);
    const { rows, roll, keepBarcodes } = body;
    const planned = rows.length
      ? await planCopies(
          s,
          { record: id, rows, roll, keepBarcodes },
          (kind, count) => s.nextIds(kind, count),
          mayOverruleRolls(person),
        )
      : { made: [], copies: [], overruled: [] };
    const did: Act = {
      act: 'copy-record',
      names: { title: briefOf(record).title, neighbour: neighbour.value.name },
      counts: { copies: planned.copies.length, errors, alike },
      ...(planned.overruled.length > 0 && { overruled: planned.overruled }),
    };
    return {
      did,
      id,
      changes: [
        creation('record', id, record),
        ...headings,
        ...planned.made,
        ...planned.copies.map((c) => c.change),
      ],
    };
  });
