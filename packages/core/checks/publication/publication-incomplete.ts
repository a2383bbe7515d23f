import { type Check } from '../finding';
import { wholeField } from '../view';

const PARTS: readonly [string, string][] = [
  ['a', 'place'],
  ['b', 'name'],
  ['c', 'date'],
];

export const publicationIncomplete: Check = {
  rule: 'publication-incomplete',
  title: 'Incomplete publication statement',
  group: 'Publication and description',
  source: 'MARC 21, 264 and 260 $a, $b, $c; ISBD, area 4',
  run(view, tell) {
    const p = view.tagged('264').find((f) => f.field.ind2 === '1') ?? view.tagged('260')[0];
    if (!p || p.field.subfields.some((s) => s.code === '3')) return;
    const dated = view.tagged('264').some((f) => f.field.subfields.some((s) => s.code === 'c'));
    const missing = PARTS.filter(
      ([code]) =>
        !p.field.subfields.some((s) => s.code === code) &&
        !(code === 'c' && (dated || isSerial(view.record.leader))),
    );
    if (missing.length > 0 && missing.length < 3)
      tell({
        severity: 'advice',
        where: wholeField(p),
        message: `${p.field.tag} has no ${missing.map(([code, name]) => `${name} ($${code})`).join(' and no ')}.`,
      });
  },
};

const isSerial = (leader: string) => 'bis'.includes(leader[7]!);
