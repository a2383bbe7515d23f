import { cutDewey } from '../../callnumbers';
import { mapData, mapTexts } from '../select';
import type { StepKind } from '../step-kind';
import { PARTS as parts } from './parts';

/** Cuts class numbers to the decimals of the house. */
export interface CutClassStep {
  readonly step: 'cut-class';
  readonly tag: string;
}

/** Cuts class numbers to the decimals of the house. */
export const cutClassStep: StepKind<CutClassStep> = {
  step: 'cut-class',
  name: 'shorten the class number to the house rule',
  parts: [parts.tag],
  first: { step: 'cut-class', tag: '082' },
  prepare:
    ({ tag }, { house }) =>
    (record) =>
      mapData(record, tag, (f) => mapTexts(f, 'a', (text) => cutDewey(text, house.classDecimals) ?? text)),
  sentence: ({ tag }, house) => `In ${tag} $a, cut the class number to ${house.classDecimals} decimals`,
};
