import { replacer } from '../expression';
import { mapData, mapTexts } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags, TextMatch } from '../step-values';
import { codesName, expressed, inQuotes, tagsName } from '../step-words';
import { PARTS as parts } from './parts';

/** Replaces text in subfields. */
export interface ReplaceTextStep {
  readonly step: 'replace-text';
  readonly tags: Tags;
  readonly codes: string;
  readonly match: TextMatch;
  readonly by: string;
}

/** Replaces text in subfields. */
export const replaceTextStep: StepKind<ReplaceTextStep> = {
  step: 'replace-text',
  name: 'replace text',
  parts: [
    parts.tags,
    parts.codes,
    { key: 'match', kind: 'match', name: 'text' },
    { key: 'by', kind: 'text', name: 'by' },
  ],
  first: { step: 'replace-text', tags: '300', codes: 'a', match: { find: 'p.' }, by: 'pages' },
  prepare({ tags, codes, match, by }) {
    const replaced = replacer(match, by);
    return (record) => mapData(record, tags, (f) => mapTexts(f, codes, replaced));
  },
  sentence: ({ tags, codes, match, by }) =>
    by === ''
      ? `In ${tagsName(tags)}, delete ${inQuotes(match.find)} from ${codesName(codes)}${expressed(match)}`
      : `In ${tagsName(tags)}, replace ${inQuotes(match.find)} by ${inQuotes(by)} in ${codesName(codes)}${expressed(match)}`,
};
