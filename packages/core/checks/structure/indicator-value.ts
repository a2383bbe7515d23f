import { codeMeaning, isLocalTag, type IndicatorDefinition } from '../../format';
import { ALL_FORMATS, change, look, type Check } from '../finding';
import { wholeField } from '../view';

export const indicatorValue: Check = {
  rule: 'indicator-value',
  title: 'Undefined indicator value',
  group: 'Structure',
  source: 'MARC 21 formats, indicators',
  formats: ALL_FORMATS,
  run({ irregular }, tell) {
    for (const p of irregular) {
      const { tag, ind1, ind2 } = p.field;
      const { definition } = p;
      if (!definition) continue;
      const [first, second] = definition.indicators ?? NONE;
      if (
        (first ? first.values[ind1] !== undefined : ind1 === ' ') &&
        (second ? second.values[ind2] !== undefined : ind2 === ' ')
      )
        continue;
      if (isLocalTag(tag) || p.rules === '880') continue;
      for (const which of [1, 2] as const) {
        const value = which === 1 ? ind1 : ind2;
        const known = definition.indicators?.[which - 1];
        if (isDefined(known, value)) continue;
        const blank = !known || known.values[' '] !== undefined;
        tell({
          severity: 'warning',
          where: wholeField(p),
          message: known
            ? `Indicator ${which} of ${tag} (${known.name}) has no value ${value === ' ' ? 'blank' : `“${value}”`}.`
            : `Indicator ${which} of ${tag} is undefined and must be blank; it is “${value}”.`,
          ...(blank && { fix: look('Make it blank', change(p, { [`ind${which}`]: ' ' })) }),
        });
      }
    }
  },
};

/** Defined now, or once: obsolete values are told by a check of their own. */
const isDefined = (known: IndicatorDefinition | null | undefined, value: string): boolean =>
  known
    ? codeMeaning(value, known.values) !== undefined ||
      (known.obsolete !== undefined && codeMeaning(value, known.obsolete) !== undefined)
    : value === ' ';

const NONE = [null, null] as const;
