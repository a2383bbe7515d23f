import { fieldDefinition } from '../format';
import { isProtected, type HouseRules } from '../house';
import { isData, withField, type DataField, type MarcRecord } from '../marc';
import { fold } from '../text';

/**
 * The held record with what the incoming one has more: fields whose tag it lacks, and of repeatable fields those that are
 * not there yet. Nothing that is held is changed or lost; protected fields are not added to.
 */
export function mergeFields(held: MarcRecord, incoming: MarcRecord, house: HouseRules): MarcRecord {
  let result = held;
  for (const f of incoming.fields) {
    if (f.tag < '010' || isProtected(f.tag, house) || COPIES.test(f.tag)) continue;
    const same = held.fields.filter((h) => h.tag === f.tag);
    if (same.length === 0) {
      if (!isData(f) || !alternativeTo(f, held)) result = withField(result, f);
      continue;
    }
    if (!isData(f) || fieldDefinition(f.tag)?.repeatable !== true || f.tag === '264') continue;
    const key = contentKey(f);
    if (result.fields.some((h) => h.tag === f.tag && isData(h) && contentKey(h) === key)) continue;
    result = withField(result, f);
  }
  return result;
}

/** Holdings come as copies, not as fields. */
const COPIES = /^(852|853|863|866|876|880)$/;

/** 260 and 264, 440 and 490 say the same in an older and a newer way; the main entry is one of 1XX. */
function alternativeTo(f: DataField, held: MarcRecord): boolean {
  const has = (pattern: RegExp) => held.fields.some((h) => pattern.test(h.tag));
  if (f.tag === '260' || f.tag === '264') return has(/^26[04]$/);
  if (f.tag === '440' || f.tag === '490') return has(/^4[49]0$/);
  return /^1\d\d$/.test(f.tag) && has(/^1\d\d$/);
}

const contentKey = (f: DataField) =>
  `${f.tag[0] === '6' ? f.ind2 : ''}|${f.subfields
    .filter((s) => /[a-z]/.test(s.code))
    .map((s) => `${s.code}${fold(s.value)}`)
    .join('|')}`;
