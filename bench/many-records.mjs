// Records that are all different, with names and subjects that come again as they do in a library.
import { writeFileSync } from 'node:fs';
import { writeIso2709 } from '../packages/core/marc/index.ts';

const WORDS =
  'willow osier rush straw hazel oak ash elm reed sedge hemp flax wool madder woad weld heather bramble birch lime chestnut withy besom hurdle basket trug skep coracle creel'.split(
    ' ',
  );
/** A number that looks like chance but is the same every time (the mixing step of MurmurHash3, 32 bits). */
const mixed = (i, k) => {
  let h = Math.imul(i ^ 0x9e3779b9, 0x85ebca6b) + Math.imul(k + 1, 0xc2b2ae35);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
};
export const pick = (i, k) => WORDS[mixed(i, k) % WORDS.length];
const SYLLABLES =
  'ba be bi bo bu da de di do du ka ke ki ko ku la le li lo lu ma me mi mo mu ra re ri ro ru'.split(' ');
/** One of 4001 surnames, which begin as differently as surnames do. */
export const surname = (i) => {
  const n = mixed(i % 4001, 99);
  const name = [0, 5, 10].map((shift) => SYLLABLES[(n >>> shift) % SYLLABLES.length]).join('');
  return `${name[0].toUpperCase()}${name.slice(1)}n`;
};
const check13 = (twelve) =>
  twelve + String((10 - ([...twelve].reduce((n, d, i) => n + Number(d) * (i % 2 ? 3 : 1), 0) % 10)) % 10);
export const field = (tag, indicators, ...pairs) => ({
  tag,
  ind1: indicators[0],
  ind2: indicators[1],
  subfields: Array.from({ length: pairs.length / 2 }, (_, i) => ({
    code: pairs[2 * i],
    value: pairs[2 * i + 1],
  })),
});

/** Record `i`; `by` is who sends it, so that the same book has two numbers and one ISBN. */
export function manyRecord(i, by) {
  const author = `${surname(i)}, ${pick(i % 4001, 2)[0].toUpperCase()}${pick(i % 4001, 2).slice(1)}`;
  const year = 1930 + (i % 95);
  return {
    leader: '00000cam a2200000 i 4500',
    fields: [
      { tag: '001', value: `${by.toLowerCase()}${i}` },
      { tag: '003', value: by },
      { tag: '008', value: `200101s${year}    enka          001 0 eng d` },
      field('020', '  ', 'a', check13(`978${String(1_000_000_00 + i).padStart(9, '0')}`)),
      field('082', '04', 'a', `746.${i % 1000}`, '2', '23'),
      field('100', '1 ', 'a', `${author},`, 'e', 'author.'),
      field(
        '245',
        '10',
        'a',
        `${pick(i, 3)} and ${pick(i, 4)} of place ${i} :`,
        'b',
        `a book of ${pick(i, 5)} /`,
        'c',
        `${author}.`,
      ),
      field('264', ' 1', 'a', 'Wickmere :', 'b', `${pick(i, 6)} Press,`, 'c', `${year}.`),
      field('300', '  ', 'a', `${40 + (i % 400)} pages :`, 'b', 'illustrations ;', 'c', '22 cm'),
      field(
        '500',
        '  ',
        'a',
        'Measurements in inches throughout, with remarks on tools and their makers. '.repeat(4).trim(),
      ),
      field('650', ' 0', 'a', `${pick(i, 7)} craft.`),
      field('650', ' 0', 'a', `${pick(i, 8)}.`, 'v', 'Juvenile literature.'),
      field('650', ' 0', 'a', `Rural life ${i % 700}.`),
    ],
  };
}

/** Writes records `from` to `to` as ISO 2709. */
export function writeMany(path, from, to, by) {
  const parts = [];
  for (let i = from; i < to; i++) parts.push(writeIso2709(manyRecord(i, by)));
  const all = Buffer.concat(parts);
  writeFileSync(path, all);
  return all.length;
}
