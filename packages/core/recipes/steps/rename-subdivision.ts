import { isData } from '../../marc';
import { fold } from '../../text';
import { mapFields, mapTexts, SUBDIVIDED } from '../select';
import type { StepKind } from '../step-kind';
import { inQuotes } from '../step-words';
import { PARTS } from './parts';

/** Replaces a subdivision of subject headings. */
export interface RenameSubdivisionStep {
  readonly step: 'rename-subdivision';
  readonly text: string;
  readonly by: string;
}

/** Replaces a subdivision of subject headings; a full stop behind it stays. */
export const renameSubdivisionStep: StepKind<RenameSubdivisionStep> = {
  step: 'rename-subdivision',
  name: 'replace a subdivision',
  parts: [PARTS.subdivision, { key: 'by', kind: 'text', name: 'by', wanted: true }],
  first: { step: 'rename-subdivision', text: '', by: '' },
  prepare(step) {
    const { by } = step;
    const renamed = fold(step.text);
    return (record) =>
      mapFields(record, (f) =>
        isData(f) && SUBDIVIDED.test(f.tag)
          ? mapTexts(f, 'vxyz', (value) =>
              fold(value) === renamed ? by + (/\.$/.test(value) && !/\.$/.test(by) ? '.' : '') : value,
            )
          : f,
      );
  },
  sentence: (step) =>
    `In every subject heading, replace the subdivision ${inQuotes(step.text)} by ${inQuotes(step.by)}`,
};
