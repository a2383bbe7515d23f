import { CHECKS } from '../checks';
import { codeName, fieldName } from '../format';
import type { HouseRules } from '../house';
import { fieldText } from '../marc';
import type { Condition, Step, StepBody, TextMatch, Which } from './step';

type Say<K extends StepBody['step']> = (step: Extract<StepBody, { step: K }>, house: HouseRules) => string;

const tagsName = (tags: string) =>
  tags.includes('.') ? `every ${tags.replaceAll('.', 'X')}` : `every ${tags}`;
const codesName = (codes: string) =>
  codes === '' ? 'the text' : [...codes].map((c) => `$${c}`).join(' and ');
const quoted = (text: string) => `“${text}”`;
const matching = (match: TextMatch | undefined) =>
  match ? ` that ${match.expression ? 'matches' : 'has'} ${quoted(match.find)}` : '';
const expressed = (match: TextMatch) => (match.expression ? ' (an expression)' : '');
const which = (w: Which) => (w === 'all' ? 'every' : `the ${w}`);

const SAYS: { [K in StepBody['step']]: Say<K> } = {
  'add-field': ({ field, ifAbsent }) =>
    `Add ${fieldText(field)}${ifAbsent ? `, if there is no ${field.tag} yet` : ''}`,
  'delete-field': ({ tags, which: w, match }) =>
    `Take away ${which(w)} ${tags.replaceAll('.', 'X')}${matching(match)}`,
  'copy-field': ({ tags, to }) => `Copy ${tagsName(tags)} to ${to} (${fieldName(to)})`,
  'move-field': ({ tags, to }) => `Make ${tagsName(tags)} a ${to} (${fieldName(to)})`,
  'set-subfield': ({ tags, code, value, ifAbsent }) =>
    `In ${tagsName(tags)}, set $${code} to ${quoted(value)}${ifAbsent ? ', if it is not there' : ''}`,
  'delete-subfield': ({ tags, code, which: w, match }) =>
    `In ${tagsName(tags)}, take away ${which(w)} $${code}${matching(match)}`,
  'copy-subfield': ({ tags, code, toCode }) => `In ${tagsName(tags)}, copy $${code} to $${toCode}`,
  'move-subfield': ({ tags, code, toCode }) => `In ${tagsName(tags)}, make $${code} a $${toCode}`,
  'set-indicator': ({ tags, which: n, value, from }) =>
    `In ${tagsName(tags)}, set indicator ${n} to ${blank(value)}${from === undefined ? '' : ` where it is ${blank(from)}`}`,
  'replace-text': ({ tags, codes, match, by }) =>
    by === ''
      ? `In ${tagsName(tags)}, take ${quoted(match.find)} out of ${codesName(codes)}${expressed(match)}`
      : `In ${tagsName(tags)}, write ${quoted(by)} for ${quoted(match.find)} in ${codesName(codes)}${expressed(match)}`,
  'change-case': ({ tags, codes, to }) =>
    `In ${tagsName(tags)}, write ${codesName(codes)} ${{ sentence: 'as a sentence', title: 'with capital words', lower: 'small', upper: 'in capitals' }[to]}`,
  'end-mark': ({ tags, mark }) =>
    mark === ''
      ? `In ${tagsName(tags)}, take the end mark away`
      : `In ${tagsName(tags)}, end with ${quoted(mark)}`,
  'capital-after-article': ({ tag }, { wordAfterArticle }) =>
    `In ${tag} $a, write the word after the initial article ${
      {
        small: 'small where the record shows that it is no name',
        capital: 'with a capital',
        'as it comes': 'as it comes (a house rule: nothing is changed)',
      }[wordAfterArticle] ?? 'as the house rules have it'
    }`,
  'drop-subdivision': ({ text }) => `In every subject heading, drop the subdivision ${quoted(text)}`,
  'rename-subdivision': ({ text, by }) =>
    `In every subject heading, make the subdivision ${quoted(text)} ${quoted(by)}`,
  'drop-duplicate-subjects': () => 'Drop subject headings that are there twice but for case and punctuation',
  'drop-incomplete-headings': () => 'Drop subject headings without a word in $a',
  'sort-fields': () => 'Put the fields in the order of their tags',
  'set-position': ({ tag, from, text }) =>
    `Set ${tag === 'LDR' ? 'leader' : tag}/${String(from).padStart(2, '0')} to ${blank(text)}`,
  'map-codes': ({ tags, code, table }) =>
    `In ${tagsName(tags)}, translate $${code}: ${Object.entries(table)
      .slice(0, 3)
      .map(([a, b]) => `${a} is ${b}`)
      .join(', ')}${Object.keys(table).length > 3 ? ', …' : ''}`,
  'cut-class': ({ tag }, house) => `In ${tag} $a, cut the class number to ${house.classDecimals} decimals`,
  'call-number': ({ scheme }) =>
    `In every 852 without one, build the call number from the ${{ dewey: 'Dewey', lc: 'LC', nlm: 'NLM' }[scheme]} class in house style`,
  'build-field': ({ tag, parts }) =>
    `Build a ${tag}: ${parts.map((p) => `$${p.code} ${p.template}`).join(' ')}`,
  'apply-fixes': ({ rule }) =>
    `Apply the safe fixes of “${CHECKS.find((c) => c.rule === rule)?.title ?? rule}”`,
};

const blank = (value: string) => (value.trim() === '' ? 'blank' : quoted(value));

/** A step as a sentence. */
export function stepSentence(step: Step, house: HouseRules): string {
  const said = (SAYS[step.step] as Say<StepBody['step']>)(step, house);
  const when = step.when && conditionSentence(step.when);
  return when ? `${said}, where ${when}` : said;
}

function conditionSentence(c: Condition): string {
  const parts: string[] = [];
  if (c.has !== undefined) parts.push(`the record has ${c.has}`);
  if (c.lacks !== undefined) parts.push(`it lacks ${c.lacks}`);
  if (c.languages?.length)
    parts.push(`the language is ${c.languages.map((l) => codeName('languages', l) ?? l).join(' or ')}`);
  if (c.types?.length) parts.push(`the type of record is ${c.types.join(' or ')}`);
  if (c.suppliers?.length) parts.push(`the supplier is ${c.suppliers.join(' or ')}`);
  return parts.join(' and ');
}
