import { briefOf } from '../access';
import { cutDewey } from '../callnumbers';
import { lowerAfterArticle, subjectKey } from '../checks';
import type { HouseRules } from '../house';
import { isData, type Field, type MarcRecord } from '../marc';

/** One clean-up step, a plain value. */
export type Step =
  | { readonly step: 'capital-after-article'; readonly tag: string }
  | { readonly step: 'drop-duplicate-subjects' }
  | { readonly step: 'cut-class'; readonly tag: string };

/** A named, ordered list of steps. */
export interface Recipe {
  readonly id: string;
  readonly name: string;
  readonly steps: readonly Step[];
}

/** What a recipe made of a record, and which steps (by index) touched it. */
export interface Cleaned {
  readonly record: MarcRecord;
  readonly touched: readonly number[];
}

export const BUILT_IN: readonly Recipe[] = [
  {
    id: 'house-style',
    name: 'House style',
    steps: [
      { step: 'capital-after-article', tag: '245' },
      { step: 'drop-duplicate-subjects' },
      { step: 'cut-class', tag: '082' },
    ],
  },
];

/** A step as a sentence. */
export function stepSentence(step: Step, house: HouseRules): string {
  switch (step.step) {
    case 'capital-after-article':
      return `In ${step.tag} $a, write the word after the initial article small`;
    case 'drop-duplicate-subjects':
      return 'Drop subject headings that are there twice but for case and punctuation';
    case 'cut-class':
      return `In ${step.tag} $a, cut the class number to ${house.classDecimals} decimals`;
  }
}

/** Runs a recipe over one record. A step that changes nothing leaves the record the same value. */
export function runRecipe(record: MarcRecord, recipe: Recipe, house: HouseRules): Cleaned {
  const touched: number[] = [];
  let current = record;
  recipe.steps.forEach((step, i) => {
    const next = runStep(current, step, house);
    if (next !== current) touched.push(i);
    current = next;
  });
  return { record: current, touched };
}

function runStep(record: MarcRecord, step: Step, house: HouseRules): MarcRecord {
  switch (step.step) {
    case 'capital-after-article': {
      const { language } = briefOf(record);
      return mapText(record, step.tag, 'a', (text) => lowerAfterArticle(text, language) ?? text);
    }
    case 'cut-class':
      return mapText(record, step.tag, 'a', (text) => cutDewey(text, house.classDecimals) ?? text);
    case 'drop-duplicate-subjects': {
      const seen = new Set<string>();
      const fields = record.fields.filter((f) => {
        if (!isData(f) || !/^6[0-5]/.test(f.tag)) return true;
        const key = subjectKey(f);
        return seen.has(key) ? false : seen.add(key);
      });
      return fields.length === record.fields.length ? record : { ...record, fields };
    }
  }
}

/** Maps the text of every subfield of a code in fields of a tag; gives the same record when nothing changed. */
function mapText(record: MarcRecord, tag: string, code: string, map: (text: string) => string): MarcRecord {
  let changed = false;
  const fields = record.fields.map((f): Field => {
    if (f.tag !== tag || !isData(f)) return f;
    const subfields = f.subfields.map((s) => (s.code === code ? { ...s, value: map(s.value) } : s));
    if (subfields.every((s, i) => s.value === f.subfields[i]!.value)) return f;
    changed = true;
    return { ...f, subfields };
  });
  return changed ? { ...record, fields } : record;
}
