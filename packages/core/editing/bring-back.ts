import { placeFor, type Field, type FieldPair, type MarcRecord } from '../marc';

const same = (a: Field, b: Field): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * A record in which one field is again as an older version had it. `pair` is one of their differences
 * (`compareRecords(older, now)`): a field that was lost comes back at its place, one that was changed is exchanged, one that is
 * new goes. The leader's part of a difference is brought back as a whole.
 */
export function fieldBroughtBack(now: MarcRecord, older: MarcRecord, pair: FieldPair): MarcRecord {
  if (pair.change === 'same') return now;
  if (pair.change === 'changed') {
    if (pair.after.tag === 'LDR') return { ...now, leader: older.leader };
    const at = now.fields.findIndex((f) => same(f, pair.after));
    return at < 0 ? now : { ...now, fields: now.fields.map((f, i) => (i === at ? pair.before : f)) };
  }
  if (pair.change === 'new') {
    const at = now.fields.findIndex((f) => same(f, pair.field));
    return { ...now, fields: now.fields.filter((_, i) => i !== at) };
  }
  const at = placeFor(now, pair.field.tag);
  return { ...now, fields: [...now.fields.slice(0, at), pair.field, ...now.fields.slice(at)] };
}
