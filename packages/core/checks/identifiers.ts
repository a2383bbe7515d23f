import { isbn13From, readIsbn } from '../access';
import { inSubfield, placed, type Check } from './finding';

export const isbnForm: Check = {
  rule: 'isbn-form',
  title: 'ISBN that is not right',
  source: 'ISO 2108:2017, annex B; MARC 21, 020 $a, $q and $z',
  *run(record) {
    for (const p of placed(record, '020'))
      for (const [i, s] of p.field.subfields.entries()) {
        if (s.code !== 'a') continue;
        const isbn = readIsbn(s.value);
        if (!isbn) {
          yield { severity: 'error', where: inSubfield(p, i), message: `“${s.value}” is no ISBN.` };
          continue;
        }
        if (isbn.problem) {
          const subfields = p.field.subfields.map((x, k) => (k === i ? { ...x, code: 'z' } : x));
          yield {
            severity: 'error',
            where: inSubfield(p, i),
            message: isbn.problem,
            fix: {
              sentence: 'Keep it as a wrong ISBN in $z',
              safe: false,
              edits: [{ op: 'replace', at: p.at, field: { ...p.field, subfields } }],
            },
          };
        } else if (isbn.rest) {
          const qualifier = isbn.rest.replace(/^[(:\s]+|[)\s]+$/g, '');
          const subfields = p.field.subfields.flatMap((x, k) =>
            k === i
              ? [
                  { code: 'a', value: isbn.digits },
                  { code: /\d[.,]\d\d/.test(qualifier) ? 'c' : 'q', value: qualifier },
                ]
              : [x],
          );
          yield {
            severity: 'warning',
            where: inSubfield(p, i, s.value.indexOf(isbn.rest)),
            message: `“${isbn.rest}” stands in the ISBN; a qualifier belongs in $q, a price in $c.`,
            fix: {
              sentence: 'Move it out of the number',
              safe: true,
              edits: [{ op: 'replace', at: p.at, field: { ...p.field, subfields } }],
            },
          };
        }
      }
  },
};

export const isbn13Missing: Check = {
  rule: 'isbn-13-missing',
  title: 'ISBN only in ten digits',
  source: 'ISO 2108:2017 (thirteen digits since 2007)',
  *run(record) {
    const all = placed(record, '020').flatMap((p) =>
      p.field.subfields.flatMap((s, i) => (s.code === 'a' ? [{ p, i, isbn: readIsbn(s.value) }] : [])),
    );
    for (const { p, i, isbn } of all) {
      if (!isbn?.isbn13 || isbn.digits.length !== 10) continue;
      if (all.some((o) => o.isbn?.digits === isbn.isbn13)) continue;
      const wanted = isbn13From(isbn.digits);
      yield {
        severity: 'advice',
        where: inSubfield(p, i),
        message: `ISBN ${isbn.digits} is not also given in 13 digits (${wanted}).`,
        fix: {
          sentence: `Add 020 $a${wanted}`,
          safe: true,
          edits: [
            { op: 'insert', at: p.at, field: { ...p.field, subfields: [{ code: 'a', value: wanted }] } },
          ],
        },
      };
    }
  },
};
