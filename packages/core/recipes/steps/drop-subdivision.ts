import { withoutParts } from '../../checks';
import { isData } from '../../marc';
import { fold } from '../../text';
import { mapFields, SUBDIVIDED } from '../select';
import type { StepKind } from '../step-kind';
import { inQuotes } from '../step-words';
import { PARTS } from './parts';

/** Deletes a subdivision from subject headings. */
export interface DropSubdivisionStep {
  readonly step: 'drop-subdivision';
  readonly text: string;
}

/** Deletes a subdivision from subject headings; a heading that was nothing else goes. */
export const dropSubdivisionStep: StepKind<DropSubdivisionStep> = {
  step: 'drop-subdivision',
  name: 'delete a subdivision',
  parts: [PARTS.subdivision],
  first: { step: 'drop-subdivision', text: '' },
  prepare(step) {
    const dropped = fold(step.text);
    return (record) =>
      mapFields(record, (f) => {
        if (!isData(f) || !SUBDIVIDED.test(f.tag)) return f;
        const left = withoutParts(f, (s) => 'vxyz'.includes(s.code) && fold(s.value) === dropped);
        return left.subfields.some((s) => s.code >= 'a') ? left : null;
      });
  },
  sentence: (step) => `In every subject heading, delete the subdivision ${inQuotes(step.text)}`,
};
