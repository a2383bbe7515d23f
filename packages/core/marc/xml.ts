import { SaxesParser } from 'saxes';
import type { Field, MarcRecord, Subfield } from './record';
import { xmlSplitter, type XmlPiece } from './xml-splitter';
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
      if (seen === 0 || root === undefined || splitter.tail().includes(`</${root}`)) return [];
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
  const note = (code: Repair['code'], message: string, repaired = true) =>
    repairs.push({ code, offset, message, repaired });
  const { leader, fields, failed } = parseRecord(text, (message) => note('indicators', message));
  if (!closed) note('truncated', 'The record is not closed; what there is of it was read.');
  else if (failed)
    note('xml', `The XML of this record is not well-formed (${failed}); what could be read was kept.`);
  if (fields.length === 0 && leader === '') {
    note('unreadable', 'Nothing in this record element could be read.', false);
    return { record: null, offset, length: text.length, repairs };
  }
  const whole = leader.length === 24 ? leader : mendLeader(leader, repairs, offset);
  const record = { leader: `${whole.slice(0, 9)}a${whole.slice(10)}`, fields };
  return { record, offset, length: text.length, repairs };
}

/** Leader and fields of one record element; the first thing that is wrong with its XML. */
function parseRecord(
  xml: string,
  told: (message: string) => void,
): { leader: string; fields: Field[]; failed: string | null } {
  const fields: Field[] = [];
  let [leader, failed, tag, code]: [string, string | null, string, string] = ['', null, '', ''];
  let ind: [string, string] = [' ', ' '];
  let subfields: Subfield[] | null = null;
  let text: string | null = null;
  const indicator = (given: string | undefined) => {
    if (given?.length === 1) return given;
    told(`Field ${tag} had ${given ? `“${given}”` : 'nothing'} for an indicator.`);
    return given?.[0] ?? ' ';
  };
  const parser = new SaxesParser({ xmlns: false, fragment: true });
  const local = (name: string) => name.slice(name.indexOf(':') + 1);
  parser.on('error', (error) => (failed ??= error.message));
  parser.on('opentag', ({ name, attributes }) => {
    const a = attributes as Record<string, string>;
    const element = local(name);
    if (element === 'leader') text = '';
    else if (element === 'controlfield') [tag, text] = [a.tag ?? '', ''];
    else if (element === 'datafield') {
      [tag, subfields] = [a.tag ?? '', []];
      ind = [indicator(a.ind1), indicator(a.ind2)];
    } else if (element === 'subfield') [code, text] = [a.code ?? ' ', ''];
  });
  const more = (t: string) => {
    if (text !== null) text += t;
  };
  parser.on('text', more);
  parser.on('cdata', more);
  const endField = () => {
    if (subfields) fields.push({ tag, ind1: ind[0], ind2: ind[1], subfields });
    subfields = null;
  };
  parser.on('closetag', ({ name }) => {
    const content = (text ?? '').normalize('NFC');
    const element = local(name);
    if (element === 'leader') leader = content;
    else if (element === 'controlfield') fields.push({ tag, value: content });
    else if (element === 'subfield') subfields?.push({ code, value: content });
    else if (element === 'datafield') endField();
    text = null;
  });
  parser.write(xml).close();
  // A record that breaks off inside a field keeps the subfields before.
  endField();
  return { leader, fields, failed };
}

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

export const MARCXML_START = `<?xml version="1.0" encoding="UTF-8"?>\n<collection xmlns="${MARCXML}">\n`;
export const MARCXML_END = '</collection>\n';
