import { filledUndefined, positionsOf, undefinedCodes } from '../../format';
import { ALL_FORMATS, type Check } from '../finding';
import { inControl, inLeader } from '../view';

export const fixedCodes: Check = {
  rule: 'fixed-codes',
  title: 'Undefined code in leader, 006, 007 or 008',
  group: 'Structure',
  source: 'MARC 21 formats, fixed-length data elements',
  formats: ALL_FORMATS,
  run({ record, controls, memory }, tell) {
    const sound = memory.of(soundIn, fixedCodes);
    for (const { tag, value, at } of [{ tag: 'LDR', value: record.leader, at: -1 }, ...controls]) {
      if (!FIXED.has(tag)) continue;
      const key = keyOf(tag, value, record.leader);
      if (sound.has(key)) continue;
      let told = false;
      for (const position of positionsOf(tag, value, record.leader)) {
        const { from, to, name } = position;
        if (to > value.length || (tag === 'LDR' && from >= 20)) continue;
        for (const { code, obsolete } of undefinedCodes(value.slice(from, to), position)) {
          told = true;
          tell({
            severity: obsolete ? 'advice' : 'warning',
            where: tag === 'LDR' ? inLeader(from, to) : inControl(tag, at, from, to),
            message: `${tag === 'LDR' ? 'Leader' : tag}/${String(from).padStart(2, '0')} (${name}): the code “${code}” is ${obsolete ? 'obsolete' : 'not defined'}.`,
          });
        }
      }
      for (const place of filledUndefined(tag, value, record.leader)) {
        told = true;
        tell({
          severity: 'advice',
          where: inControl(tag, at, place, place + 1),
          message: `${tag}/${String(place).padStart(2, '0')} is undefined for this material, and “${value[place]!}” stands in it.`,
        });
      }
      if (!told && sound.size < MOST) sound.add(key);
    }
  },
};

const FIXED = new Set(['LDR', '006', '007', '008']);
const MOST = 20_000;
/** Fixed fields that are known to be right, without the dates in them: the same come again and again. */
const soundIn = () => new Set<string>();
const keyOf = (tag: string, value: string, leader: string) =>
  tag === 'LDR'
    ? leader.slice(5, 12) + leader.slice(17, 20)
    : `${leader[6]}${leader[7]}${tag}${tag === '008' ? value[6] + value.slice(15) : value}`;
