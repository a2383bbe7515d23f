import { MARCXML_END, MARCXML_START, marcXmlElement, writeIso2709, type MarcRecord } from '@osier/core/marc';

/** A format in which many records are written as they are read. */
interface RecordFormat {
  readonly ending: string;
  readonly media: string;
  readonly write: (records: AsyncIterable<readonly MarcRecord[]>) => AsyncIterable<string | Uint8Array>;
}

const FORMATS: Readonly<Record<string, RecordFormat>> = {
  iso2709: { ending: 'mrc', media: 'application/marc', write: isoOf },
  marcxml: { ending: 'xml', media: 'application/marcxml+xml', write: xmlOf },
};

/** The format of a name: iso2709 or marcxml; undefined for any other. */
export const recordFormat = (name: string): RecordFormat | undefined =>
  Object.hasOwn(FORMATS, name) ? FORMATS[name] : undefined;

async function* isoOf(records: AsyncIterable<readonly MarcRecord[]>): AsyncGenerator<Uint8Array> {
  for await (const some of records) yield Buffer.concat(some.map((r) => writeIso2709(r)));
}
async function* xmlOf(records: AsyncIterable<readonly MarcRecord[]>): AsyncGenerator<string> {
  yield MARCXML_START;
  for await (const some of records) yield some.map((r) => marcXmlElement(r)).join('');
  yield MARCXML_END;
}
