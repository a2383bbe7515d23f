import { SaxesParser } from 'saxes';
import type { Field, MarcRecord, Subfield } from './record';
import type { ReadRecord, Repair } from './repair';

const MARCXML = 'http://www.loc.gov/MARC21/slim';

/** A streaming MARCXML reader: fed text, gives records. Elements count by local name, with or without namespace. */
export interface MarcXmlReader {
  push(text: string): ReadRecord[];
  end(): ReadRecord[];
  /** The first thing that is wrong with the XML, which ends the reading there. */
  problem(): string | null;
}

export function marcXmlReader(): MarcXmlReader {
  let found: ReadRecord[] = [];
  let failed: string | null = null;
  let leader = '';
  let fields: Field[] | null = null;
  let repairs: Repair[] = [];
  let tag = '';
  let code = '';
  let ind: [string, string] = [' ', ' '];
  let subfields: Subfield[] = [];
  let text: string | null = null;
  let start = 0;
  const parser = new SaxesParser({ xmlns: false, position: true });
  const indicator = (given: string | undefined, of: string) => {
    if (given?.length === 1) return given;
    repairs.push({
      code: 'indicators',
      offset: start,
      repaired: true,
      message: `Field ${of} had ${given ? `“${given}”` : 'nothing'} for an indicator.`,
    });
    return given?.[0] ?? ' ';
  };
  const local = (name: string) => name.slice(name.indexOf(':') + 1);
  parser.on('error', (error) => {
    failed ??= error.message;
  });
  parser.on('opentag', ({ name, attributes }) => {
    const a = attributes as Record<string, string>;
    switch (local(name)) {
      case 'record':
        [leader, fields, repairs, start] = ['', [], [], parser.position];
        break;
      case 'leader':
        text = '';
        break;
      case 'controlfield':
        [tag, text] = [a.tag ?? '', ''];
        break;
      case 'datafield':
        [tag, subfields] = [a.tag ?? '', []];
        ind = [indicator(a.ind1, tag), indicator(a.ind2, tag)];
        break;
      case 'subfield':
        [code, text] = [a.code ?? ' ', ''];
        break;
    }
  });
  parser.on('text', (t) => {
    if (text !== null) text += t;
  });
  parser.on('cdata', (t) => {
    if (text !== null) text += t;
  });
  parser.on('closetag', ({ name }) => {
    if (!fields) return;
    const content = (text ?? '').normalize('NFC');
    switch (local(name)) {
      case 'leader':
        leader = content.length === 24 ? content : mendLeader(content, repairs, start);
        break;
      case 'controlfield':
        fields.push({ tag, value: content });
        break;
      case 'subfield':
        subfields.push({ code, value: content });
        return void (text = null);
      case 'datafield':
        fields.push({ tag, ind1: ind[0], ind2: ind[1], subfields });
        break;
      case 'record': {
        const unicode =
          leader.length === 24 ? `${leader.slice(0, 9)}a${leader.slice(10)}` : mendLeader('', repairs, start);
        found.push({
          record: { leader: unicode, fields },
          offset: start,
          length: parser.position - start,
          repairs,
        });
        fields = null;
        break;
      }
    }
    text = null;
  });
  const take = () => {
    const records = found;
    found = [];
    return records;
  };
  return {
    push(chunk) {
      if (!failed) parser.write(chunk);
      return take();
    },
    end() {
      if (!failed) parser.close();
      return take();
    },
    problem: () => failed,
  };
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
