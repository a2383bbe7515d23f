import { isProtected, type HouseRules } from '../house';
import { withField, type MarcRecord } from '../marc';

/** The held record replaced by the incoming one: our protected fields stay, all else is the incoming's. */
export function replaceRecord(held: MarcRecord, incoming: MarcRecord, house: HouseRules): MarcRecord {
  const ours = held.fields.filter((f) => isProtected(f.tag, house) || f.tag === '001' || f.tag === '003');
  const theirs = incoming.fields.filter(
    (f) =>
      !ours.some((o) => o.tag === f.tag) ||
      (!isProtected(f.tag, house) && f.tag !== '001' && f.tag !== '003'),
  );
  let result: MarcRecord = { leader: incoming.leader, fields: theirs };
  for (const f of ours) result = withField(result, f);
  return result;
}
