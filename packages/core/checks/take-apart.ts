import { readIsbn } from '../access';
import { fieldDefinition, formatOf, type FieldDefinition, type Format } from '../format';
import { hasLink, isData, isShared, type DataField, type MarcRecord } from '../marc';
import { hasSoundShape } from './shape';
import type { SoundFields } from './sound-fields';
import { memory, type Memory } from '../text';
import {
  NAME_TAGS,
  Placed,
  SUBJECT_TAGS,
  type ControlAt,
  type ForeignText,
  type IsbnAt,
  type RecordView,
} from './view';

const NONE: readonly Placed[] = [];
const NO_FOREIGN: readonly ForeignText[] = [];
const NO_ISBNS: readonly IsbnAt[] = [];
const PLAIN = /^[ -~]*$/;
const SUBJECTS = new Set(SUBJECT_TAGS);
const NAMES = new Set(NAME_TAGS);

/** What is known from other records. */
export interface Known {
  /** The fields that are sound in records of which the same is expected. */
  readonly sounds: (expected: string) => SoundFields;
  readonly memory: Memory;
}

/** Takes a record apart for the checks; without `known` nothing is known of its fields. */
export function viewOf(record: MarcRecord, known?: Known): RecordView {
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
  const sounds = known?.sounds(expected);
  const remembered = known?.memory ?? memory();
  const data: Placed[] = [];
  const doubtful: Placed[] = [];
  const irregular: Placed[] = [];
  const byTag = new Map<string, Placed[]>();
  let linked = false;
  let before = '';
  let same: Placed[] | undefined;
  let definition: FieldDefinition | undefined;
  for (let at = 0; at < fields.length; at++) {
    const field = fields[at]!;
    if (!isData(field)) continue;
    const { tag } = field;
    if (tag !== before) {
      same = byTag.get(tag);
      definition = fieldDefinition(tag, format);
      before = tag;
    }
    let rules = tag;
    if (tag === '880') {
      rules = rulesOf(field);
      definition = fieldDefinition(rules, format);
    }
    if (!linked && (tag === '880' || (!isShared(field) && hasLink(field)))) linked = true;
    const sound = sounds?.has(field) ?? false;
    const placed = new Placed(field, at, same?.length ?? 0, rules, definition, sound);
    if (!sound) doubtful.push(placed);
    if ((same && !definition?.repeatable) || !(sound || hasSoundShape(remembered, definition, field)))
      irregular.push(placed);
    if (same) same.push(placed);
    else byTag.set(tag, (same = [placed]));
    data.push(placed);
  }
  const about = { record, format, language, expected, controls, linked, memory: remembered };
  const whole = new Taken(about, data, byTag, irregular);
  if (doubtful.length) whole.doubtful = new Part(whole, doubtful);
  return whole;
}

/** The tag of the field that an 880 is the partner of. */
function rulesOf(field: DataField): string {
  return /^(\d{3})-/.exec(field.subfields.find((s) => s.code === '6')?.value ?? '')?.[1] ?? '880';
}

type About = Pick<
  RecordView,
  'record' | 'format' | 'language' | 'expected' | 'controls' | 'linked' | 'memory'
>;

/** A record view; what only some checks ask for is worked out when the first one does. */
class Taken implements RecordView {
  doubtful: RecordView | null = null;
  private texts: string | undefined;
  private strange: readonly ForeignText[] | undefined;
  private books: readonly IsbnAt[] | undefined;
  private topics: readonly Placed[] | undefined;
  private people: readonly Placed[] | undefined;

  readonly record: MarcRecord;
  readonly format: Format;
  readonly language: string;
  readonly expected: string;
  readonly controls: readonly ControlAt[];
  readonly linked: boolean;
  readonly memory: Memory;

  constructor(
    about: About,
    readonly data: readonly Placed[],
    readonly byTag: ReadonlyMap<string, readonly Placed[]>,
    readonly irregular: readonly Placed[],
  ) {
    this.record = about.record;
    this.format = about.format;
    this.language = about.language;
    this.expected = about.expected;
    this.controls = about.controls;
    this.linked = about.linked;
    this.memory = about.memory;
  }

  get subjects(): readonly Placed[] {
    return (this.topics ??= this.data.filter(isSubject));
  }
  get names(): readonly Placed[] {
    return (this.people ??= this.data.filter(isName));
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
    return (this.books ??= isbnsIn(this.tagged('020')));
  }
  tagged(tag: string): readonly Placed[] {
    return this.byTag.get(tag) ?? NONE;
  }
  control(tag: string): ControlAt | undefined {
    for (const c of this.controls) if (c.tag === tag) return c;
    return undefined;
  }
  ruled(tags: readonly string[]): readonly Placed[] {
    let found: readonly Placed[] = NONE;
    for (const tag of tags) {
      const own = this.tagged(tag);
      if (own.length) found = found.length ? [...found, ...own] : own;
    }
    if (!this.byTag.has('880')) return found;
    return [...found, ...this.tagged('880').filter((p) => p.rules !== '880' && tags.includes(p.rules))];
  }
}

/** The fields of a record that are not known to be sound, as if it had no others. */
class Part extends Taken {
  constructor(
    private readonly whole: Taken,
    data: readonly Placed[],
  ) {
    super(whole, data, whole.byTag, whole.irregular.length ? whole.irregular.filter(isDoubtful) : NONE);
  }
  override get isbns(): readonly IsbnAt[] {
    const all = this.whole.isbns;
    return all.length ? all.filter(({ p }) => !p.sound) : all;
  }
  override tagged(tag: string): readonly Placed[] {
    const own = this.byTag.get(tag);
    if (!own) return NONE;
    if (own.length > 1) return own.filter(isDoubtful);
    return own[0]!.sound ? NONE : own;
  }
}

const isDoubtful = (p: Placed) => !p.sound;

/** Most fields fail at the first digit. */
const isSubject = ({ field: { tag } }: Placed) => tag.charCodeAt(0) === 0x36 && SUBJECTS.has(tag);
const isName = ({ field: { tag } }: Placed) =>
  (tag.charCodeAt(0) === 0x31 || tag.charCodeAt(0) === 0x37) && NAMES.has(tag);

function isbnsIn(fields: readonly Placed[]): readonly IsbnAt[] {
  let found: IsbnAt[] | undefined;
  for (const p of fields)
    for (const { code, value, i } of p.subfields)
      if (code === 'a') (found ??= []).push({ code, value, i, p, isbn: readIsbn(value) });
  return found ?? NO_ISBNS;
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
