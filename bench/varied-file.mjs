// Writes `count` records of about 1,000 bytes that are all different, with names, places and subjects that come again as they do
// in a library: a title, an ISBN and a summary of its own each. Run as a bundle.
import { writeFileSync } from 'node:fs';
import { writeIso2709 } from '../packages/core/marc/index.ts';
import { field, manyRecord, pick } from './many-records.mjs';

const [file, count] = [process.argv[2], Number(process.argv[3])];

/** A sentence of words that come as if by chance. */
function summary(i) {
  const words = Array.from({ length: 24 + (i % 20) }, (_, k) => pick(i, 20 + k));
  return `${words[0][0].toUpperCase()}${words.join(' ').slice(1)}, with ${i} plates and a word on each.`;
}

const rda = (tag, term, code, list) => field(tag, '  ', 'a', term, 'b', code, '2', list);
function varied(i) {
  const { leader, fields } = manyRecord(i, 'Many');
  const after = (tag) => fields.findLastIndex((f) => f.tag <= tag) + 1;
  const put = (f) => fields.splice(after(f.tag), 0, f);
  put(field('040', '  ', 'a', 'Wick', 'b', 'eng', 'e', 'rda', 'c', 'Wick'));
  put(rda('336', 'text', 'txt', 'rdacontent'));
  put(rda('337', 'unmediated', 'n', 'rdamedia'));
  put(rda('338', 'volume', 'nc', 'rdacarrier'));
  put(
    field(
      '504',
      '  ',
      'a',
      `Includes bibliographical references (pages ${100 + (i % 90)}-${200 + (i % 70)}) and index.`,
    ),
  );
  put(field('520', '  ', 'a', summary(i)));
  if (i % 3 === 0)
    put(
      field(
        '700',
        '1 ',
        'a',
        `${manyRecord(i + 7, 'Many').fields.find((f) => f.tag === '100').subfields[0].value}`,
        'e',
        'illustrator.',
      ),
    );
  return { leader, fields };
}

writeFileSync(file, Buffer.concat(Array.from({ length: count }, (_, i) => writeIso2709(varied(i)))));
