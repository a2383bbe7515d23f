import { subjectKey } from '../../checks';
import { isData } from '../../marc';
import { mapFields } from '../select';
import type { StepKind } from '../step-kind';

/** Deletes subject headings that the record has already. */
export interface DropDuplicateSubjectsStep {
  readonly step: 'drop-duplicate-subjects';
}

/** Deletes subject headings that the record has already, but for case and punctuation. */
export const dropDuplicateSubjectsStep: StepKind<DropDuplicateSubjectsStep> = {
  step: 'drop-duplicate-subjects',
  name: 'delete duplicate subject headings',
  parts: [],
  first: { step: 'drop-duplicate-subjects' },
  prepare: () => (record) => {
    const seen = new Set<string>();
    return mapFields(record, (f) => {
      if (!isData(f) || !/^6[0-5]/.test(f.tag)) return f;
      const key = subjectKey(f);
      if (seen.has(key)) return null;
      seen.add(key);
      return f;
    });
  },
  sentence: () => 'Delete duplicate subject headings (case and punctuation do not count)',
};
