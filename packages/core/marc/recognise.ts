import { looksLikeLeader, FIELD_END, RECORD_END } from './iso2709/delimiters';
import { tableHead } from './table';

export type FileFormat = 'iso2709' | 'marcxml' | 'json' | 'lines' | 'csv';

/** What a file is by its first bytes: a format we read, or a sentence on what it looks like instead. */
export type Recognised = { readonly format: FileFormat } | { readonly problem: string };

/** Looks at the first bytes of a file (a few kilobytes are enough). */
export function recogniseFormat(head: Uint8Array): Recognised {
  const magic = MAGIC.find(({ bytes }) => bytes.every((b, i) => head[i] === b));
  if (magic) return { problem: `This is ${magic.name}, not MARC records. ${magic.hint}` };
  const utf16 =
    head[0] === 0xff && head[1] === 0xfe ? 'le' : head[0] === 0xfe && head[1] === 0xff ? 'be' : null;
  if (utf16) {
    const text = new TextDecoder(`utf-16${utf16}`).decode(head.subarray(0, 4096)).trimStart();
    if (text.startsWith('<')) return recogniseXml(text);
    return { problem: 'This is text in UTF-16. Save the records as UTF-8 and try again.' };
  }
  let at = head[0] === 0xef && head[1] === 0xbb && head[2] === 0xbf ? 3 : 0;
  while (at < head.length && (head[at]! <= 0x20 || head[at] === RECORD_END)) at++;
  if (at >= head.length) return { problem: 'The file is empty.' };
  if (looksLikeLeader(head, at)) return { format: 'iso2709' };
  if (head.indexOf(FIELD_END) > 0 && head.indexOf(0x1f) > 0)
    return isNoise(head)
      ? { problem: 'This is a binary file of an unknown kind, not MARC records.' }
      : { format: 'iso2709' };
  const text = new TextDecoder().decode(head.subarray(at, at + 4096));
  if (text.startsWith('<')) return recogniseXml(text);
  if (text.startsWith('{') || text.startsWith('[')) {
    if (/"leader"\s*:/.test(text)) return { format: 'json' };
    return { problem: 'This is JSON, but not MARC-in-JSON: no record leader in it.' };
  }
  if (/^LDR {4}\d{5}[a-z]/.test(text)) return { format: 'lines' };
  if (/^(=LDR|LDR|000|=\d{3})\s/m.test(text))
    return {
      problem:
        'This looks like MARC records written out as lines for reading. Ask for the ISO 2709 or MARCXML file.',
    };
  const lines = text.split(/\r?\n/).filter(Boolean);
  if (lines.length > 0 && lines.slice(0, 5).every((l) => /^[A-D]?\d{5,14}[A-D]?\s*$/i.test(l.trim())))
    return {
      problem: 'This looks like a list of scanned barcodes. Load it in a withdrawal list or a stocktake.',
    };
  if (lines.length > 1 && tableHead(lines[0]!)) return { format: 'csv' };
  if (lines.length > 1 && /[,;\t]/.test(lines[0]!))
    return {
      problem:
        'This looks like a table (CSV or tab-separated text). For a record a row, put field addresses such as 020$a or 245$a at the head of its columns.',
    };
  if (/[\u0000-\u0008\u000e-\u001a]/.test(text))
    return { problem: 'This is a binary file of an unknown kind, not MARC records.' };
  return { problem: 'This looks like plain text, not MARC records.' };
}

/** Controls that no record has, beside its delimiters, the escape of MARC-8 and line ends: a few may be damage, many are another kind of file. */
function isNoise(head: Uint8Array): boolean {
  let odd = 0;
  for (const byte of head) if (byte < 0x1b && byte !== 0x09 && byte !== 0x0a && byte !== 0x0d) odd++;
  return odd > 8 && odd * 50 > head.length;
}

function recogniseXml(text: string): Recognised {
  if (/<!doctype html|<html/i.test(text)) return { problem: 'This is a web page, not MARC records.' };
  if (/<(\w+:)?(collection|record)\b/.test(text)) return { format: 'marcxml' };
  const root = /<([A-Za-z][\w:.-]*)/.exec(text.replace(/<\?[^>]*\?>|<!--[\s\S]*?-->/g, ''))?.[1];
  return {
    problem: `This is XML with the root element ${root ?? 'unknown'}, not MARCXML (collection or record).`,
  };
}

const MAGIC: { bytes: number[]; name: string; hint: string }[] = [
  {
    bytes: [0x25, 0x50, 0x44, 0x46],
    name: 'a PDF document',
    hint: 'Ask the supplier for the record file (.mrc).',
  },
  {
    bytes: [0x50, 0x4b, 3, 4],
    name: 'a ZIP archive or an office document',
    hint: 'If it is an archive, unpack it and drop the record file.',
  },
  { bytes: [0x1f, 0x8b], name: 'a gzip archive', hint: 'Unpack it and drop the record file.' },
  { bytes: [0x89, 0x50, 0x4e, 0x47], name: 'a PNG picture', hint: '' },
  { bytes: [0xff, 0xd8, 0xff], name: 'a JPEG picture', hint: '' },
  { bytes: [0xd0, 0xcf, 0x11, 0xe0], name: 'an old office document', hint: '' },
  { bytes: [0x53, 0x51, 0x4c, 0x69, 0x74, 0x65], name: 'a SQLite database', hint: '' },
];
