import { emptyFixedField } from './fixed-field';
import { field, type Field } from '../marc';

/** Indicators and subfields that most fields of a tag have: what a person would type first. The choice is ours. */
const USUAL: Readonly<Record<string, readonly [indicators: string, codes: string]>> = {
  '010': ['  ', 'a'],
  '020': ['  ', 'a'],
  '022': ['  ', 'a'],
  '024': ['3 ', 'a'],
  '028': ['02', 'ab'],
  '040': ['  ', 'abce'],
  '041': ['0 ', 'a'],
  '050': [' 4', 'ab'],
  '082': ['04', 'a2'],
  '100': ['1 ', 'ae'],
  '110': ['2 ', 'a'],
  '111': ['2 ', 'ancd'],
  '240': ['10', 'al'],
  '245': ['10', 'abc'],
  '246': ['3 ', 'a'],
  '264': [' 1', 'abc'],
  '300': ['  ', 'abc'],
  '336': ['  ', 'ab2'],
  '337': ['  ', 'ab2'],
  '338': ['  ', 'ab2'],
  '490': ['0 ', 'av'],
  '505': ['0 ', 'a'],
  '506': ['1 ', 'a'],
  '511': ['0 ', 'a'],
  '521': ['  ', 'a'],
  '526': ['0 ', 'ab'],
  '600': ['10', 'a'],
  '610': ['20', 'a'],
  '611': ['20', 'a'],
  '630': ['00', 'a'],
  '650': [' 0', 'a'],
  '651': [' 0', 'a'],
  '655': [' 7', 'a2'],
  '700': ['1 ', 'ae'],
  '710': ['2 ', 'a'],
  '711': ['2 ', 'ancd'],
  '740': ['02', 'a'],
  '773': ['0 ', 'tg'],
  '776': ['08', 'iaz'],
  '780': ['00', 't'],
  '785': ['00', 't'],
  '830': [' 0', 'av'],
  '856': ['40', 'uy'],
};

/** A new field of a tag as it is opened to be typed: usual indicators and subfields, a fixed field in its length. */
export function usualField(tag: string, leader: string): Field {
  if (tag === '008') return { tag, value: emptyFixedField(tag, leader) };
  if (tag.startsWith('00')) return { tag, value: '' };
  const [indicators, codes] = USUAL[tag] ?? ['  ', 'a'];
  return field(tag, indicators, ...[...codes].flatMap((code) => [code, '']));
}
