import { controlValue, firstValue } from '../marc';
import { placed, wholeField, type Check } from './finding';

export const dateAgainstText: Check = {
  rule: 'date-against-text',
  title: 'Date in 008 against the date in 264 or 260',
  source: 'MARC 21, 008/07-10 and 264 $c',
  *run(record) {
    const fixed = controlValue(record, '008')?.slice(7, 11) ?? '';
    const written = firstValue(record, '264', 'c') ?? firstValue(record, '260', 'c') ?? '';
    const years = written.match(/\d{4}/g);
    if (!/^\d{4}$/.test(fixed) || !years || years.includes(fixed)) return;
    const at = record.fields.findIndex((f) => f.tag === '008');
    yield {
      severity: 'warning',
      where: { field: at, tag: '008', occurrence: 0, start: 7, end: 11 },
      message: `008 gives the date ${fixed}, the text says “${written}”.`,
    };
  },
};

export const fixedLength: Check = {
  rule: 'fixed-length',
  title: 'Length of 008',
  source: 'MARC 21, 008 (40 characters)',
  *run(record) {
    const at = record.fields.findIndex((f) => f.tag === '008');
    const value = controlValue(record, '008');
    if (value !== undefined && value.length !== 40)
      yield {
        severity: 'error',
        where: { field: at, tag: '008', occurrence: 0 },
        message: `008 has 40 characters; this one has ${value.length}.`,
      };
  },
};

export const linkForm: Check = {
  rule: 'link-form',
  title: 'Link that cannot work',
  source: 'MARC 21, 856 $u; RFC 3986',
  *run(record) {
    for (const p of placed(record, '856'))
      for (const s of p.field.subfields)
        if (s.code === 'u' && !/^https?:\/\/[^\s/]+\.[^\s]+$/.test(s.value.trim()))
          yield {
            severity: 'warning',
            where: wholeField(p),
            message: `“${s.value}” is not a link that can be opened (https://…).`,
          };
  },
};
