import {
  MARCXML_END,
  MARCXML_START,
  marcJson,
  marcXmlElement,
  writeIso2709,
  type MarcRecord,
} from '@osier/core/marc';
import type { Response } from 'express';
import { withTheirHoldings, type HoldingsAs } from '../copies/with-holdings';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';

type Writer = readonly [
  ending: string,
  media: string,
  write: (marcs: readonly MarcRecord[]) => string | Uint8Array,
];
const FORMATS: Readonly<Record<string, Writer>> = {
  iso2709: ['mrc', 'application/marc', (marcs) => Buffer.concat(marcs.map((m) => writeIso2709(m)))],
  marcxml: [
    'xml',
    'application/marcxml+xml',
    (marcs) => MARCXML_START + marcs.map((m) => marcXmlElement(m)).join('') + MARCXML_END,
  ],
  json: [
    'json',
    'application/marc-in-json',
    (marcs) => (marcs.length === 1 ? marcJson(marcs[0]!) : `[${marcs.map((m) => marcJson(m)).join(',\n')}]`),
  ],
};

/** Sends a record as a file, with its holdings as they are wanted. */
export async function sendRecord(
  { store }: Services,
  id: number,
  as: string,
  holdings: HoldingsAs,
  res: Response,
): Promise<undefined> {
  const record = await store.read('record', id);
  if (!record) throw notFound(`Record ${id}`);
  const format = Object.hasOwn(FORMATS, as) ? FORMATS[as] : undefined;
  if (!format) throw wrong('as', `There is no format “${as}”: iso2709, marcxml or json.`);
  const [ending, media, write] = format;
  const marcs = await withTheirHoldings(store, [record], holdings, (await store.house()).value);
  res.setHeader('content-disposition', `attachment; filename="record-${id}.${ending}"`);
  res.type(media).send(Buffer.from(write(marcs)));
  return undefined;
}
