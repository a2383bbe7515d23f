import {
  AUTHOR_MARKS,
  callNumberRuleProblems,
  MARKED_BY,
  prefixKey,
  RULE_WORKS,
  SCHEMES,
  type AuthorMark,
  type CallNumber,
  type MarkedBy,
  type RuleWorks,
} from '@osier/core/callnumbers';
import { array, boolean, mixed, object } from 'yup';
import { flag, listOf, shape, text, whole, wordOf } from '../answers';
import { line } from '../inputs';
import { number } from '../values';

const codes = () => array(line(60).required()).default([]);

/** How call numbers are made at some places, for some types and works. */
export const callNumberRuleBody = object({
  name: line(60).trim().default(''),
  branches: codes(),
  locations: codes(),
  types: codes(),
  works: mixed<RuleWorks>()
    .oneOf([...RULE_WORKS])
    .required(),
  scheme: mixed<CallNumber['scheme']>()
    .oneOf([...SCHEMES])
    .required(),
  hasClass: boolean().required(),
  prefix: line(40).trim().default(''),
  suffix: line(40).trim().default(''),
  decimals: number().integer().min(0).max(12).required(),
  mark: mixed<AuthorMark>()
    .oneOf([...AUTHOR_MARKS])
    .required(),
  markedBy: mixed<MarkedBy>()
    .oneOf([...MARKED_BY])
    .required(),
  markLength: number().integer().min(1).max(8).required(),
  isMcAsMac: boolean().required(),
  hasYear: boolean().required(),
}).test('call number rule', function (rule) {
  const [problem] = callNumberRuleProblems(rule);
  return problem
    ? this.createError({ path: `${this.path}.${problem.field}`, message: problem.message })
    : true;
});

/** Prefixes of call numbers in the order of the shelf. */
export const prefixOrderBody = array(line().max(20).required())
  .max(200, 'At most 200 prefixes have a place of their own.')
  .test('once', 'A prefix stands here twice.', (all = []) => new Set(all.map(prefixKey)).size === all.length)
  .default([]);

/** A rule for call numbers as it is answered. */
export const callNumberRuleAnswer = shape({
  name: text(),
  branches: listOf(text()),
  locations: listOf(text()),
  types: listOf(text()),
  works: wordOf(RULE_WORKS),
  scheme: wordOf(SCHEMES),
  hasClass: flag(),
  prefix: text(),
  suffix: text(),
  decimals: whole(),
  mark: wordOf(AUTHOR_MARKS),
  markedBy: wordOf(MARKED_BY),
  markLength: whole(),
  isMcAsMac: flag(),
  hasYear: flag(),
});
