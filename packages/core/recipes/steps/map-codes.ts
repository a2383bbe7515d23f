import { mapData, mapTexts } from '../select';
import type { StepKind } from '../step-kind';
import type { Tags } from '../step-values';
import { tagsName } from '../step-words';
import { PARTS as parts } from './parts';

/** Replaces codes by those of a table. */
export interface MapCodesStep {
  readonly step: 'map-codes';
  readonly tags: Tags;
  readonly code: string;
  readonly table: Readonly<Record<string, string>>;
}

/** Replaces codes by those of a table; a code that is not in it stays. */
export const mapCodesStep: StepKind<MapCodesStep> = {
  step: 'map-codes',
  name: 'map codes by a table',
  parts: [parts.tags, parts.code, { key: 'table', kind: 'table', name: 'table' }],
  first: { step: 'map-codes', tags: '852', code: 'b', table: {} },
  prepare: ({ tags, code, table }) => {
    const known = new Map(Object.entries(table));
    return (record) =>
      mapData(record, tags, (f) => mapTexts(f, code, (text) => known.get(text.trim()) ?? text));
  },
  sentence: ({ tags, code, table }) => {
    const pairs = Object.entries(table).map(([from, to]) => `${from} becomes ${to}`);
    return `In ${tagsName(tags)}, map $${code}: ${pairs.slice(0, 3).join(', ')}${pairs.length > 3 ? ', …' : ''}`;
  },
};
