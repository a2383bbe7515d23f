import {
  formOfAuthority,
  formOfField,
  mergeForms,
  mergeInRecord,
  NotMergeable,
  withSeeFroms,
  type MergeForm,
} from '@osier/core/headings';
import { isData, type DataField, type Field, type MarcRecord } from '@osier/core/marc';
import { createReadStream } from 'node:fs';
import { createInterface } from 'node:readline';
import { printAlike } from './alike-headings';
import { oneOf, readArguments, UsageError } from './usage';

/** `osier headings FILE`: look-alikes; `--merge CASES`: merges tried on fields, a JSON object a line in and out. */
export async function headings(args: readonly string[]): Promise<number> {
  const { file, options, flags } = readArguments(args, ['format', 'records'], ['merge']);
  oneOf('format', options.format ?? 'json', ['json']);
  if (!flags.has('merge')) return printAlike(file, options.records);
  if (options.records !== undefined)
    throw new UsageError('--records goes with look-alikes, not with --merge.');
  const input = file === '-' ? process.stdin : createReadStream(file);
  for await (const line of createInterface({ input, crlfDelay: Infinity }))
    process.stdout.write(`${JSON.stringify(tried(line))}\n`);
  return 0;
}

function tried(line: string): object {
  try {
    return mergedCase(JSON.parse(line) as unknown);
  } catch (error) {
    if (error instanceof SyntaxError) return { error: 'The line is not JSON.' };
    if (error instanceof NotMergeable) return { error: error.message };
    throw error;
  }
}

function mergedCase(given: unknown): object {
  const one = typeof given === 'object' && given !== null ? given : {};
  const { kept, lost, fields, leader } = one as Record<string, unknown>;
  if (!isLines(kept) || !Array.isArray(lost) || lost.length === 0 || !lost.every(isLines) || !isLines(fields))
    throw new NotMergeable('A case has `kept`, `lost` and `fields`, each a list of fields.');
  const keptRecord = authority(kept);
  const lostRecords = lost.map(authority);
  const forms = mergeForms(
    keptRecord.form,
    lostRecords.map((l) => l.form),
  );
  if (forms.lost.some((l) => l.key === forms.kept.key && lostRecords.length === 1))
    throw new NotMergeable('A heading cannot be merged into itself.');
  const record: MarcRecord = {
    leader: typeof leader === 'string' ? leader : '00000nam a2200000 i 4500',
    fields: fields.map(readField),
  };
  const { record: after, notes } = mergeInRecord(record, forms.kept, forms.lost);
  const authorityAfter = withSeeFroms(
    keptRecord.marc,
    lostRecords.map((l) => l.marc),
  );
  return {
    fields: after.fields.map(writeField),
    notes,
    keptRecord: authorityAfter.fields.map(writeField),
  };
}

const isLines = (of: unknown): of is string[] => Array.isArray(of) && of.every((l) => typeof l === 'string');

/** An authority record of these fields, or for the heading of one access field. */
function authority(lines: readonly string[]): { marc: MarcRecord; form: MergeForm | null } {
  const fields = lines.map(readField);
  const [only] = fields;
  if (fields.length === 1 && only && isData(only) && only.tag[0] !== '1') {
    const form = formOfField(only);
    return { marc: { leader: '', fields: form ? [headingField(form, only)] : [] }, form };
  }
  const marc = { leader: '', fields };
  const form = formOfAuthority(marc);
  // A heading stands in its record without the marks of a bibliographic field.
  const plain = form ? fields.map((f) => (f === form.field ? headingField(form, form.field) : f)) : fields;
  return { marc: { leader: '', fields: plain }, form };
}

const headingField = (form: MergeForm, f: DataField): DataField => ({
  tag: `1${f.tag.slice(1)}`,
  ind1: /^.[3-5]/.test(f.tag) ? ' ' : f.ind1,
  ind2: f.tag.endsWith('30') ? (f.tag[0] === '1' ? f.ind2 : ' ') : ' ',
  subfields: form.subfields,
});

const FIELD = /^(\d{3}) ([0-9a-z_ ])([0-9a-z_ ]) (\$.*)$/s;

/** `700 1_ $aReedman, A.,$eeditor.`: tag, indicators (`_` for blank), then `$` and code before each text; `$` in a text is `$$`. */
function readField(line: string): Field {
  const control = /^(00\d) +(.*)$/s.exec(line);
  if (control) return { tag: control[1]!, value: control[2]! };
  const found = FIELD.exec(line);
  if (!found)
    throw new NotMergeable(`“${line}” is not a field: tag, blank, two indicators, blank, subfields.`);
  const [, tag, ind1, ind2, text] = found;
  const blank = (c: string) => (c === '_' ? ' ' : c);
  const parts = text!.replaceAll('$$', '\u0000').split('$').slice(1);
  return {
    tag: tag!,
    ind1: blank(ind1!),
    ind2: blank(ind2!),
    subfields: parts.map((p) => ({ code: p[0] ?? ' ', value: p.slice(1).replaceAll('\u0000', '$') })),
  };
}

const writeField = (f: Field): string =>
  isData(f)
    ? `${f.tag} ${(f.ind1 + f.ind2).replaceAll(' ', '_')} ${f.subfields.map((s) => `$${s.code}${s.value.replaceAll('$', '$$$$')}`).join('')}`
    : `${f.tag} ${f.value}`;
