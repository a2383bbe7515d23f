import type { LabelRoll } from '../barcodes';
import type { HouseRules } from '../house';
import {
  codeProblem,
  mappingProblems,
  NO_DEFAULTS,
  placeProblems,
  sourceProblems,
  STANDARD_MAPPING,
  type CodeLists,
  type CopyDefaults,
  type CopyMapping,
  type FieldProblem,
} from '../holdings';
import { controlValue, dataFields, values, type FileFormat, type MarcRecord } from '../marc';
import {
  DEFAULT_ACTIONS,
  DEFAULT_RULE,
  needsTarget,
  ruleProblem,
  type Actions,
  type MatchRule,
} from '../matching';

/** What is done with a delivery: saved per supplier, and changeable for one delivery. */
export interface DeliverySettings {
  readonly format: 'found' | FileFormat;
  readonly charset: 'found' | 'utf8' | 'marc8';
  readonly rule: MatchRule;
  readonly actions: Actions;
  /** Id of the recipe that is run while reading; empty for none. */
  readonly recipe: string;
  /** Tags of ours that survive, beside those of the house; `.` stands for any digit. */
  readonly protectedFields: readonly string[];
  readonly mapping: CopyMapping;
  readonly defaults: CopyDefaults;
  /** Label roll that barcodes come from, or must come from. */
  readonly roll: number | null;
}

/** What is the same every time for one supplier. */
export interface SupplierSheet extends DeliverySettings {
  readonly name: string;
  /** It is chosen by itself when one of these fits: file names with `*`, or organisation codes in 003, 040 $a or $d. */
  readonly files: readonly string[];
  readonly organisations: readonly string[];
}

/** How a delivery is read and matched that no supplier sheet fits. */
export const DEFAULT_SETTINGS: DeliverySettings = {
  format: 'found',
  charset: 'found',
  rule: DEFAULT_RULE,
  actions: DEFAULT_ACTIONS,
  recipe: '',
  protectedFields: [],
  mapping: STANDARD_MAPPING,
  defaults: NO_DEFAULTS,
  roll: null,
};

/** The settings of a sheet without what it is chosen by. */
export function settingsOf({
  name: _name,
  files: _files,
  organisations: _o,
  ...settings
}: SupplierSheet): DeliverySettings {
  return settings;
}

/** The house rules with the protected fields of a delivery. */
export const rulesWith = (house: HouseRules, settings: DeliverySettings): HouseRules =>
  settings.protectedFields.length
    ? { ...house, protectedFields: [...house.protectedFields, ...settings.protectedFields] }
    : house;

/** The sheet that fits a file: by its name, the longest pattern first; else by who made the first records. */
export function sheetFor<T extends SupplierSheet>(
  fileName: string,
  records: readonly MarcRecord[],
  sheets: readonly T[],
): { readonly sheet: T; readonly why: string } | null {
  const named = sheets
    .flatMap((sheet) =>
      sheet.files.filter((p) => fitsName(fileName, p)).map((pattern) => ({ sheet, pattern })),
    )
    .sort((a, b) => b.pattern.length - a.pattern.length)[0];
  if (named) return { sheet: named.sheet, why: `the file name fits “${named.pattern}”` };
  const made = new Set(
    records
      .flatMap((r) => [controlValue(r, '003') ?? '', ...dataFields(r, '040').flatMap((f) => values(f, 'ad'))])
      .map((code) => code.trim()),
  );
  for (const sheet of sheets) {
    const code = sheet.organisations.find((o) => o !== '' && made.has(o));
    if (code) return { sheet, why: `its records are by ${code}` };
  }
  return null;
}

function fitsName(name: string, pattern: string): boolean {
  if (pattern.trim() === '') return false;
  const parts = pattern.trim().toLowerCase().split('*');
  let at = 0;
  const text = name.toLowerCase();
  for (const [i, part] of parts.entries()) {
    const found = i === parts.length - 1 && i > 0 ? text.lastIndexOf(part) : text.indexOf(part, at);
    if (found < at || (i === 0 && found !== 0)) return false;
    at = found + part.length;
  }
  return pattern.endsWith('*') || at === text.length;
}

/** What a sheet is checked against. */
export interface SheetContext {
  readonly lists: CodeLists;
  readonly rolls: readonly { readonly id: number; readonly value: LabelRoll }[];
  /** Ids of the recipes there are. */
  readonly recipes: readonly string[];
}

/** What is wrong with settings, beside each field. Codes that are not on their list cannot be saved. */
export function settingsProblems(settings: DeliverySettings, context: SheetContext): FieldProblem[] {
  const { defaults, mapping } = settings;
  const problems: FieldProblem[] = [];
  const rule = ruleProblem(settings.rule);
  if (rule) problems.push({ field: 'rule', message: rule });
  if (needsTarget(settings.actions.none))
    problems.push({
      field: 'actions.none',
      message: 'Without a match there is nothing to replace, merge into or attach to.',
    });
  if (needsTarget(settings.actions.several))
    problems.push({
      field: 'actions.several',
      message: 'With several matches it is not known which one; ask, add or skip.',
    });
  if (settings.recipe !== '' && !context.recipes.includes(settings.recipe))
    problems.push({
      field: 'recipe',
      message: 'The recipe was deleted. Choose another one, or none.',
    });
  const wrong = settings.protectedFields.find((p) => !/^[0-9][0-9.]{2}$/.test(p));
  if (wrong !== undefined)
    problems.push({
      field: 'protectedFields',
      message: `“${wrong}” is not a tag: three digits, or a point for any digit.`,
    });
  problems.push(...mappingProblems(mapping));
  for (const [what, list] of [
    ['branch', context.lists.branches],
    ['location', context.lists.locations],
    ['type', context.lists.types],
    ['fund', context.lists.funds],
  ] as const)
    for (const [theirs, ours] of Object.entries(mapping.tables[what] ?? {})) {
      const problem = codeProblem(`mapping.tables.${what}`, what, ours, list);
      if (problem) problems.push({ ...problem, message: `For their ${theirs}: ${problem.message}` });
    }
  if (defaults.branch !== '' || defaults.location !== '')
    problems.push(
      ...placeProblems(defaults, context.lists).map((p) => ({ ...p, field: `defaults.${p.field}` })),
    );
  if (defaults.type !== '') {
    const type = codeProblem('defaults.type', 'type', defaults.type, context.lists.types);
    if (type) problems.push(type);
  }
  problems.push(
    ...sourceProblems(defaults, context.lists).map((p) => ({ ...p, field: `defaults.${p.field}` })),
  );
  if (defaults.copies > 0 && (defaults.branch === '' || defaults.type === ''))
    problems.push({
      field: defaults.branch === '' ? 'defaults.branch' : 'defaults.type',
      message: 'Copies are added where the record has none: choose branch, location and type.',
    });
  if (settings.roll !== null && !context.rolls.some((r) => r.id === settings.roll))
    problems.push({
      field: 'roll',
      message: 'The label roll was deleted. Choose another one, or none.',
    });
  return problems;
}

/** What is wrong with a sheet: its settings, its name, and that nothing fits it. */
export function sheetProblems(
  sheet: SupplierSheet,
  context: SheetContext,
  others: readonly SupplierSheet[],
): FieldProblem[] {
  const problems: FieldProblem[] = [];
  if (sheet.name.trim() === '') problems.push({ field: 'name', message: 'Give the supplier a name.' });
  else if (others.some((o) => o.name === sheet.name))
    problems.push({ field: 'name', message: `There is a sheet “${sheet.name}” already.` });
  const taken = sheet.files.find((p) => others.some((o) => o.files.includes(p)));
  if (taken !== undefined)
    problems.push({ field: 'files', message: `“${taken}” chooses another sheet already.` });
  return [...problems, ...settingsProblems(sheet, context)];
}
