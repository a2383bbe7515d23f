import { SaxesParser } from 'saxes';
import type { Field, MarcRecord, Subfield } from './record';
import { xmlSplitter, type XmlPiece } from './xml-splitter';
import { hasStrays, withoutXmlStrays } from './xml-strays';
import type { ReadRecord, Repair } from './repair';

const MARCXML = 'http://www.loc.gov/MARC21/slim';

/** A streaming MARCXML reader: fed text, gives records. Elements count by local name, with or without namespace. */
export interface MarcXmlReader {
  push(text: string): ReadRecord[];
  end(): ReadRecord[];
  /** Why nothing in it is a record, or null. */
  problem(): string | null;
  /** After the end: that the file breaks off behind its last record. */
  leftover(): readonly Repair[];
}

/**
 * Reads record element by record element. What is wrong with the XML of one is told with it and what could be read of it
 * is kept; the others are not touched by it. Entities are never expanded but for the five of XML and character references.
 */
export function marcXmlReader(): MarcXmlReader {
  const splitter = xmlSplitter();
  let seen = 0;
  let ended = false;
  const read = (pieces: readonly XmlPiece[]) => {
    seen += pieces.length;
    return pieces.map(readRecordElement);
  };
  return {
    push: (text) => read(splitter.push(text)),
    end() {
      ended = true;
      return read(splitter.end());
    },
    problem: () => (ended && seen === 0 ? whyNone(splitter.head()) : null),
    leftover() {
      const root = /<((?:[\w.-]+:)?collection)[\s>]/.exec(splitter.head())?.[1];
      if (seen === 0 || root === undefined || splitter.rest().includes(`</${root}`)) return [];
      const message = 'The file ends before its collection is closed.';
      return [{ code: 'truncated', offset: 0, message, repaired: true }];
    },
  };
}

/** What a file without any record element is, as far as XML says. */
function whyNone(text: string): string {
  let failed: string | null = null;
  const parser = new SaxesParser({ xmlns: false });
  parser.on('error', (error) => (failed ??= error.message));
  parser.write(text).close();
  return failed ?? 'There is no record in this XML file.';
}

function readRecordElement({ text, offset, closed }: XmlPiece): ReadRecord {
  const repairs: Repair[] = [];
  const note: Note = (code, message, repaired = true) => repairs.push({ code, offset, message, repaired });
  let read = parseRecord(text);
  if (!closed) note('truncated', 'The record is not closed; what there is of it was read.');
  if (read.failed && (closed || hasStrays(text))) {
    note('xml', `The XML of this record is not well-formed (${read.failed}); what could be read was kept.`);
    read = parseRecord(withoutXmlStrays(text));
  }
  for (const [code, message] of read.told) note(code, message);
  const { leader, fields } = read;
  if (fields.length === 0 && leader === '') {
    note('unreadable', 'Nothing in this record element could be read.', false);
    return { record: null, offset, length: text.length, repairs };
  }
  const whole = leader.length === 24 ? leader : mendLeader(leader, repairs, offset);
  const record = { leader: `${whole.slice(0, 9)}a${whole.slice(10)}`, fields };
  return { record, offset, length: text.length, repairs };
}

type Note = (code: Repair['code'], message: string, repaired?: boolean) => void;

/** What was read of one record element. */
interface Parsed {
  readonly leader: string;
  readonly fields: Field[];
  /** The first thing that is wrong with its XML. */
  readonly failed: string | null;
  readonly told: readonly [Repair['code'], string][];
}

const local = (name: string) => name.slice(name.indexOf(':') + 1);

/** Leader and fields of one record element. */
function parseRecord(xml: string): Parsed {
  const fields: Field[] = [];
  const told: [Repair['code'], string][] = [];
  let [leader, failed, tag, code]: [string, string | null, string, string] = ['', null, '', ''];
  let [ind1, ind2] = [' ', ' '];
  let subfields: Subfield[] | null = null;
  let inside: string | null = null;
  let text = '';
  const indicator = (given: string | undefined) => {
    if (given?.length === 1) return given;
    told.push(['indicators', `Field ${tag} had ${given ? `“${given}”` : 'nothing'} for an indicator.`]);
    return given?.[0] ?? ' ';
  };
  const close = (element: string) => {
    const content = text.normalize('NFC');
    if (element === 'leader') leader = content;
    else if (element === 'controlfield') fields.push({ tag, value: content });
    else if (element === 'subfield') subfields?.push({ code, value: content });
    [inside, text] = [null, ''];
  };
  const endField = () => {
    if (subfields) fields.push({ tag, ind1, ind2, subfields });
    subfields = null;
  };
  const parser = new SaxesParser({ xmlns: false, fragment: true });
  parser.on('error', (error) => (failed ??= error.message));
  parser.on('opentag', ({ name, attributes }) => {
    const a = attributes as Record<string, string>;
    const element = local(name);
    if (element === 'datafield') {
      [tag, subfields] = [a.tag ?? '', []];
      [ind1, ind2] = [indicator(a.ind1), indicator(a.ind2)];
    } else if (HAS_TEXT.has(element)) {
      if (inside) close(inside);
      [inside, text] = [element, ''];
      if (element === 'controlfield') tag = a.tag ?? '';
      if (element === 'subfield') code = a.code ?? ' ';
    } else if (inside)
      told.push(['xml', `Field ${tag} had an element “${name}” in its text; only its text was kept.`]);
  });
  const more = (t: string) => {
    if (inside) text += t;
    else if (subfields && t.trim()) {
      told.push(['no-delimiter', `Field ${tag} had text outside its subfields; it was kept as subfield a.`]);
      subfields.push({ code: 'a', value: t.trim().normalize('NFC') });
    }
  };
  parser.on('text', more);
  parser.on('cdata', more);
  parser.on('closetag', ({ name }) => {
    const element = local(name);
    if (element === inside) close(element);
    else if (element === 'datafield') endField();
  });
  parser.write(xml).close();
  // A record that breaks off inside a field keeps what there is of it.
  if (inside) close(inside);
  endField();
  return { leader, fields, failed, told };
}

const HAS_TEXT: ReadonlySet<string> = new Set(['leader', 'controlfield', 'subfield']);

function mendLeader(found: string, repairs: Repair[], offset: number): string {
  repairs.push({
    code: 'leader',
    offset,
    repaired: true,
    message: `The leader has ${found.length} of 24 characters; it was filled up.`,
  });
  const mended = found.padEnd(24).slice(0, 24);
  return mended.trim() ? mended : '00000nam a2200000   4500';
}

const escape = (text: string) =>
  text
    .replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!)
    // XML 1.0 has no other controls; they cannot be written even as references.
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, ' ');

/** One record as a MARCXML element (MARC 21 XML Schema), without namespace declaration. */
export function marcXmlElement(record: MarcRecord): string {
  const rows = record.fields.map((f) =>
    'value' in f
      ? `  <controlfield tag="${escape(f.tag)}">${escape(f.value)}</controlfield>`
      : `  <datafield tag="${escape(f.tag)}" ind1="${escape(f.ind1)}" ind2="${escape(f.ind2)}">\n${f.subfields
          .map((s) => `    <subfield code="${escape(s.code)}">${escape(s.value)}</subfield>\n`)
          .join('')}  </datafield>`,
  );
  return `<record>\n  <leader>${escape(record.leader)}</leader>\n${rows.join('\n')}\n</record>\n`;
}

/** What a MARCXML collection begins with. */
export const MARCXML_START = `<?xml version="1.0" encoding="UTF-8"?>\n<collection xmlns="${MARCXML}">\n`;
/** What it ends with. */
export const MARCXML_END = '</collection>\n';
