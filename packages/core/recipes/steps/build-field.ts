import { findAll, isAddress, parseAddress, type Address } from '../../address';
import { withField, type Field, type MarcRecord } from '../../marc';
import { addressProblem } from '../address-problem';
import type { StepKind } from '../step-kind';
import { PARTS as parts } from './parts';

/** A subfield built from others: `{245$a} and {100$a}`. Left out when one of the addresses finds nothing. */
export interface BuiltPart {
  readonly code: string;
  readonly template: string;
}

/** Builds a field from the texts of others. */
export interface BuildFieldStep {
  readonly step: 'build-field';
  readonly tag: string;
  readonly indicators: string;
  readonly parts: readonly BuiltPart[];
}

/** Builds a field from the texts of others, unless there is just such a one. */
export const buildFieldStep: StepKind<BuildFieldStep> = {
  step: 'build-field',
  name: 'build a field from others',
  parts: [
    parts.tag,
    { key: 'indicators', kind: 'text', name: 'indicators' },
    { key: 'parts', kind: 'built parts', name: 'subfields' },
  ],
  first: {
    step: 'build-field',
    tag: '590',
    indicators: '  ',
    parts: [{ code: 'a', template: '{245$a}' }],
  },
  prepare(step) {
    const { tag, indicators } = step;
    const built = step.parts.map(({ code, template }) => ({ code, fill: filling(template) }));
    return (record) => {
      const subfields = built.flatMap(({ code, fill }) => {
        const value = fill(record);
        return value === null ? [] : [{ code, value }];
      });
      if (subfields.length === 0) return record;
      const field = { tag, ind1: indicators[0] ?? ' ', ind2: indicators[1] ?? ' ', subfields };
      const same = (f: Field) => JSON.stringify(f) === JSON.stringify(field);
      return record.fields.some(same) ? record : withField(record, field);
    };
  },
  sentence: (step) => `Build a ${step.tag}: ${step.parts.map((p) => `$${p.code} ${p.template}`).join(' ')}`,
  *problems(step) {
    for (const { template } of step.parts)
      for (const [, written] of template.matchAll(ADDRESSED)) yield* addressProblem(written!);
  },
};

const ADDRESSED = /\{([^{}]+)\}/g;

/** What fills the addresses of a template with what they find first; null when one finds nothing. */
function filling(template: string): (record: MarcRecord) => string | null {
  const addresses = new Map<string, Address>();
  for (const [, written] of template.matchAll(ADDRESSED)) {
    const address = parseAddress(written!);
    if (isAddress(address)) addresses.set(written!, address);
  }
  return (record) => {
    let missing = false;
    const text = template.replace(ADDRESSED, (_, written: string) => {
      const address = addresses.get(written);
      const found = address && findAll(record, address)[0]?.text;
      if (found === undefined || found === '') missing = true;
      return found?.replace(/\s*[/:;,=]$/, '') ?? '';
    });
    return missing ? null : text;
  };
}
