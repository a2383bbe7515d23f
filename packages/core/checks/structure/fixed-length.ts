import { LENGTH_007 } from '../../format';
import { ALL_FORMATS, look, setPositions, type Check } from '../finding';
import { inControl, RECORD } from '../view';

const LENGTH_008 = { bibliographic: 40, authority: 40, holdings: 32 };

export const fixedLength: Check = {
  rule: 'fixed-length',
  title: 'Wrong length of leader, 005, 006, 007 or 008',
  group: 'Structure',
  source: 'MARC 21 formats, leader and 005–008',
  formats: ALL_FORMATS,
  run({ record, format, controls }, tell) {
    if (record.leader.length !== 24)
      tell({
        severity: 'error',
        where: RECORD,
        message: `The leader needs 24 characters; it has ${record.leader.length}.`,
      });
    for (const { tag, value, at } of controls) {
      const allowed = allowedLengths(tag, value, format);
      if (!allowed || allowed.includes(value.length)) continue;
      const short = tag === '008' && value.length < 40 && value.length >= 35;
      tell({
        severity: tag === '005' || tag === '007' ? 'warning' : 'error',
        where: inControl(tag, at),
        message: `${tag} needs ${allowed.join(' or ')} characters; it has ${value.length}.`,
        ...(short && {
          fix: look(
            'Pad with blanks',
            setPositions(tag, { value, at }, value.length, ' '.repeat(allowed[0]! - value.length)),
          ),
        }),
      });
    }
  },
};

function allowedLengths(
  tag: string,
  value: string,
  format: keyof typeof LENGTH_008,
): readonly number[] | undefined {
  if (tag === '008') return [LENGTH_008[format]];
  if (tag === '005') return [16];
  if (tag === '006') return [18];
  return tag === '007' ? LENGTH_007[value[0] ?? ''] : undefined;
}
