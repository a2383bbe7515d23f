import { codeMeaning, fieldDefinition, isLocalTag } from '../../format';
import { ALL_FORMATS, change, look, type Check } from '../finding';
import { wholeField } from '../view';

export const indicatorValue: Check = {
  rule: 'indicator-value',
  title: 'Indicator value that the format does not define',
  group: 'Structure',
  source: 'MARC 21 formats, indicators',
  formats: ALL_FORMATS,
  *run({ data, format }) {
    for (const p of data) {
      const definition = fieldDefinition(p.rules, format);
      if (!definition || isLocalTag(p.field.tag) || p.rules === '880') continue;
      for (const which of [1, 2] as const) {
        const value = which === 1 ? p.field.ind1 : p.field.ind2;
        const known = definition.indicators?.[which - 1];
        if (known ? codeMeaning(value, known.values) !== undefined : value === ' ') continue;
        if (known?.obsolete && codeMeaning(value, known.obsolete) !== undefined) continue;
        const blank = !known || known.values[' '] !== undefined;
        yield {
          severity: 'warning',
          where: wholeField(p),
          message: known
            ? `Indicator ${which} of ${p.field.tag} (${known.name}) has no value ${value === ' ' ? 'blank' : `“${value}”`}.`
            : `Indicator ${which} of ${p.field.tag} is not defined and stays blank; here it is “${value}”.`,
          ...(blank && { fix: look('Make it blank', change(p, { [`ind${which}`]: ' ' })) }),
        };
      }
    }
  },
};
