import { readIsbn, type IsbnReading } from '../access';
import { fieldDefinition, formatOf, type FieldDefinition, type Format } from '../format';
import { isData, type DataField, type MarcRecord, type Where } from '../marc';
import { hasSoundShape } from './shape';
import type { SoundFields } from './sound-fields';

/** A data field with its index and its occurrence among the fields of its tag. */
export class Placed {
  private parts: readonly SubfieldAt[] | undefined;
  constructor(
    readonly field: DataField,
    readonly at: number,
    readonly occurrence: number,
    /** The tag whose rules hold: that of the partner for an 880, else the field's own. */
    readonly rules: string,
    private readonly format: Format,
  ) {}
  get subfields(): readonly SubfieldAt[] {
    return (this.parts ??= this.field.subfields.map(({ code, value }, i) => ({ code, value, i })));
  }
  /** What the format says of it. */
  get definition(): FieldDefinition | undefined {
    return fieldDefinition(this.rules, this.format);
  }
}

/** A subfield with its place in the field. */
export interface SubfieldAt {
  readonly code: string;
  readonly value: string;
  readonly i: number;
}
export interface IsbnAt extends SubfieldAt {
  readonly p: Placed;
  readonly isbn: IsbnReading | null;
}

export interface ControlAt {
  readonly tag: string;
  readonly value: string;
  readonly at: number;
}
export interface ForeignText extends SubfieldAt {
  readonly p: Placed;
}

/** A record taken apart once for all checks. */
export interface RecordView {
  readonly record: MarcRecord;
  readonly format: Format;
  /** The tags of its data fields, each once, in the order of their first. */
  readonly tags: string;
  /** Data fields in order. */
  readonly data: readonly Placed[];
  /** 600–655, the headings among the subject fields. */
  readonly subjects: readonly Placed[];
  /** 100, 110, 111, 700, 710 and 711. */
  readonly names: readonly Placed[];
  /** Data fields that are not quite as the format has them in tag, repetition, indicators or subfield codes. */
  readonly irregular: readonly Placed[];
  /** Whether any field has no subfield, or a subfield no text. */
  readonly hollow: boolean;
  /** Whether any text begins or ends with a blank. */
  readonly ragged: boolean;
  /** Subfields with anything but printable ASCII. */
  readonly foreign: readonly ForeignText[];
  /** Data fields of one tag. */
  tagged(tag: string): readonly Placed[];
  /** Data fields of several tags, tag by tag; an 880 counts as what its partner is. */
  ruled(tags: readonly string[]): readonly Placed[];
  /** Control fields in order, with their index among all fields. */
  readonly controls: readonly ControlAt[];
  /** The first control field of a tag, with its index. */
  control(tag: string): ControlAt | undefined;
  /** All texts of data fields with a bar between them, for a first look. */
  readonly text: string;
  /** Every 020 $a with what stands there as an ISBN. */
  readonly isbns: readonly IsbnAt[];
  /** Whether any field is linked to one in another script ($6), or is one. */
  readonly linked: boolean;
  /** 008/35–37, empty when there is none. */
  readonly language: string;
  /** What the checks of each field go by beside the field: format, leader/18 and language. */
  readonly expected: string;
  /** The data fields that are not known to be sound. */
  readonly doubtful: readonly Placed[];
  /** The same record as if it had only some of its data fields. */
  only(fields: readonly Placed[]): RecordView;
}

const NONE: readonly Placed[] = [];
/** What keeps the shapes of the three formats apart. */
const PREFIX: Record<Format, string> = { bibliographic: '', authority: 'a', holdings: 'h' };
const NO_SUBFIELDS: readonly SubfieldAt[] = [];
const NO_FOREIGN: readonly ForeignText[] = [];
const PLAIN = /^[ -~]*$/;
export const SUBJECT_TAGS = ['600', '610', '611', '630', '647', '648', '650', '651', '655'];
export const NAME_TAGS = ['100', '110', '111', '700', '710', '711'];
const SUBJECTS = new Set(SUBJECT_TAGS);
const NAMES = new Set(NAME_TAGS);

/** Takes a record apart; `known` gives what is known of fields in records of which the same is expected. */
export function viewOf(record: MarcRecord, known?: (expected: string) => SoundFields): RecordView {
  const { fields } = record;
  const format = formatOf(record.leader);
  const controls: ControlAt[] = [];
  let fixed: string | undefined;
  for (let at = 0; at < fields.length; at++) {
    const field = fields[at]!;
    if (isData(field)) continue;
    const { tag, value } = field;
    controls.push({ tag, value, at });
    if (fixed === undefined && tag === '008') fixed = value;
  }
  const language = fixed?.slice(35, 38).trim() ?? '';
  const expected = `${format}${record.leader[18] ?? ' '}${language}`;
  const sounds = known?.(expected);
  const data: Placed[] = [];
  const doubtful: Placed[] = [];
  const irregular: Placed[] = [];
  const byTag = new Map<string, Placed[]>();
  let linked = false;
  for (let at = 0; at < fields.length; at++) {
    const field = fields[at]!;
    if (!isData(field)) continue;
    const { tag, subfields } = field;
    const same = byTag.get(tag);
    const rules = tag === '880' ? rulesOf(field) : tag;
    if (!linked && (tag === '880' || hasLink(subfields))) linked = true;
    const placed = new Placed(field, at, same?.length ?? 0, rules, format);
    const sound = sounds?.has(field) ?? false;
    if (!sound) doubtful.push(placed);
    if ((same && !placed.definition?.repeatable) || !(sound || isSoundInShape(placed, format)))
      irregular.push(placed);
    if (same) same.push(placed);
    else byTag.set(tag, [placed]);
    data.push(placed);
  }
  const about = { record, format, language, expected, controls, linked };
  return new Taken(about, data, byTag, doubtful, irregular);
}

const hasLink = (subfields: DataField['subfields']): boolean => {
  for (let i = 0; i < subfields.length; i++) if (subfields[i]!.code === '6') return true;
  return false;
};

function isSoundInShape({ definition, rules, field }: Placed, format: Format): boolean {
  let codes = '';
  for (const { code } of field.subfields) codes += code;
  return hasSoundShape(PREFIX[format] + rules, definition, field.ind1, field.ind2, codes);
}

function inTags(fields: readonly Placed[]): Map<string, Placed[]> {
  const byTag = new Map<string, Placed[]>();
  for (const p of fields) {
    const same = byTag.get(p.field.tag);
    if (same) same.push(p);
    else byTag.set(p.field.tag, [p]);
  }
  return byTag;
}

/** A record view; what only some checks ask for is worked out when the first one does. */
class Taken implements RecordView {
  readonly tags: string;
  readonly subjects: readonly Placed[];
  readonly names: readonly Placed[];
  private texts: string | undefined;
  private strange: readonly ForeignText[] | undefined;
  private books: readonly IsbnAt[] | undefined;

  readonly record: MarcRecord;
  readonly format: Format;
  readonly language: string;
  readonly expected: string;
  readonly controls: readonly ControlAt[];
  readonly linked: boolean;

  constructor(
    about: Pick<RecordView, 'record' | 'format' | 'language' | 'expected' | 'controls' | 'linked'>,
    readonly data: readonly Placed[],
    private readonly byTag: ReadonlyMap<string, readonly Placed[]>,
    readonly doubtful: readonly Placed[],
    readonly irregular: readonly Placed[],
  ) {
    this.record = about.record;
    this.format = about.format;
    this.language = about.language;
    this.expected = about.expected;
    this.controls = about.controls;
    this.linked = about.linked;
    let tags = '';
    for (const tag of byTag.keys()) tags += `${tag} `;
    this.tags = tags;
    const subjects: Placed[] = [];
    const names: Placed[] = [];
    for (const p of data) {
      const { tag } = p.field;
      const first = tag.charCodeAt(0);
      if (first === 0x36 && SUBJECTS.has(tag)) subjects.push(p);
      else if ((first === 0x31 || first === 0x37) && NAMES.has(tag)) names.push(p);
    }
    this.subjects = subjects;
    this.names = names;
  }

  get text(): string {
    if (this.texts === undefined) {
      let text = '';
      for (const { field } of this.data) for (const { value } of field.subfields) text += `|${value}`;
      this.texts = text;
    }
    return this.texts;
  }
  get hollow(): boolean {
    return this.data.some(({ field }) => field.subfields.length === 0 || field.subfields.some(isHollow));
  }
  get ragged(): boolean {
    return this.data.some(({ field }) => field.subfields.some(isRagged));
  }
  get foreign(): readonly ForeignText[] {
    return (this.strange ??= PLAIN.test(this.text) ? NO_FOREIGN : foreignTexts(this.data));
  }
  get isbns(): readonly IsbnAt[] {
    return (this.books ??= this.tagged('020').flatMap((p) =>
      subfieldsOf(p, 'a').map(({ code, value, i }) => ({ code, value, i, p, isbn: readIsbn(value) })),
    ));
  }
  tagged(tag: string): readonly Placed[] {
    return this.byTag.get(tag) ?? NONE;
  }
  control(tag: string): ControlAt | undefined {
    return this.controls.find((c) => c.tag === tag);
  }
  ruled(tags: readonly string[]): readonly Placed[] {
    let found: readonly Placed[] | undefined;
    for (const tag of tags) {
      const own = this.byTag.get(tag);
      if (own) found = found ? [...found, ...own] : own;
    }
    const linkedTo = this.byTag.get('880')?.filter((p) => p.rules !== '880' && tags.includes(p.rules));
    return linkedTo?.length ? [...(found ?? NONE), ...linkedTo] : (found ?? NONE);
  }
  only(fields: readonly Placed[]): RecordView {
    const irregular = this.irregular.length ? this.irregular.filter((p) => fields.includes(p)) : NONE;
    const part = new Taken(this, fields, inTags(fields), fields, irregular);
    part.books = this.isbns.length ? this.isbns.filter(({ p }) => fields.includes(p)) : this.isbns;
    return part;
  }
}

function isHollow({ value }: { readonly value: string }): boolean {
  const first = value.charCodeAt(0);
  return value === '' || ((first <= 0x20 || first >= 0xa0) && value.trim() === '');
}
const isRagged = ({ value }: { readonly value: string }): boolean =>
  value.charCodeAt(0) === 0x20 || value.charCodeAt(value.length - 1) === 0x20;

function foreignTexts(data: readonly Placed[]): ForeignText[] {
  const found: ForeignText[] = [];
  for (const p of data)
    for (const { code, value, i } of p.subfields) if (!PLAIN.test(value)) found.push({ code, value, i, p });
  return found;
}

/** The tag of the field that an 880 is the partner of. */
function rulesOf(field: DataField): string {
  return /^(\d{3})-/.exec(field.subfields.find((s) => s.code === '6')?.value ?? '')?.[1] ?? '880';
}

export const wholeField = ({ field, at, occurrence }: Placed): Where => ({
  field: at,
  tag: field.tag,
  occurrence,
});

/** A place within a subfield's text; without a range the whole text. */
export function inSubfield(
  { field, at, occurrence }: Placed,
  subfield: number,
  start?: number,
  end?: number,
): Where {
  return {
    field: at,
    tag: field.tag,
    occurrence,
    subfield,
    code: field.subfields[subfield]?.code,
    start,
    end,
  };
}

export const RECORD: Where = { field: -1, tag: 'LDR', occurrence: 0 };
/** Positions of the leader. */
export const inLeader = (start: number, end: number): Where => ({ ...RECORD, start, end });
/** Positions of a control field. */
export const inControl = (tag: string, at: number, start?: number, end?: number): Where => ({
  field: at,
  tag,
  occurrence: 0,
  start,
  end,
});

/** The subfields with one of these codes, in order; all without codes. */
export function subfieldsOf(p: Placed, codes?: string): readonly SubfieldAt[] {
  if (codes === undefined) return p.subfields;
  let found: SubfieldAt[] | undefined;
  for (const s of p.subfields) if (codes.includes(s.code)) (found ??= []).push(s);
  return found ?? NO_SUBFIELDS;
}

/** The texts of subfields with one of these codes in several fields, in order. */
export function textsIn(fields: readonly Placed[], codes: string): string[] {
  const found: string[] = [];
  for (const { subfields } of fields)
    for (const s of subfields) if (codes.includes(s.code)) found.push(s.value);
  return found;
}

const isText = (code: string) => code >= 'a' && code <= 'z' && code !== 'u';

/** Index of the last subfield with text of the field itself: no link, no control subfield; -1 for none. */
export function lastTextOf({ subfields }: Placed): number {
  for (let i = subfields.length - 1; i >= 0; i--) if (isText(subfields[i]!.code)) return i;
  return -1;
}
