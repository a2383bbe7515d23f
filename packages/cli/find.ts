import { csvHead, readColumns, USUAL_COLUMNS } from '@osier/core/address';
import { encodeUtf8, MARCXML_END, MARCXML_START } from '@osier/core/marc';
import { finder } from './finding';
import { output } from './output';
import { workOn } from './source';
import { notOver, oneOf, readArguments, UsageError } from './usage';

const FORMATS = ['lines', 'iso2709', 'marcxml', 'json', 'csv'] as const;

/** `osier find`: the records of a file that a query in CQL finds, as they are read. 0 whatever it finds, 1 when nothing can be read or asked. */
export async function find(args: readonly string[]): Promise<number> {
  const [name, query, ...more] = args;
  if (query === undefined || query.startsWith('--')) throw new UsageError('Give a file and a query.');
  const { file, options } = readArguments([name!, ...more], ['format', 'columns', 'out']);
  const to = oneOf('format', options.format ?? 'lines', FORMATS);
  const columns = options.columns ?? USUAL_COLUMNS;
  const chosen = readColumns(columns);
  if (typeof chosen === 'string') throw new UsageError(chosen);
  // What is wrong with the query is told before the file is opened.
  finder(query);
  notOver(file, options.out);
  const out = output(options.out);
  out.put(encodeUtf8(to === 'marcxml' ? MARCXML_START : to === 'csv' ? csvHead(chosen) : ''));
  let [seen, found] = [0, 0];
  const problem = await workOn(
    file,
    undefined,
    { act: 'convert', to, charset: 'utf8', columns, query },
    (done) => {
      seen += done.seen;
      found += done.written;
      out.put(done.out);
    },
  );
  if (seen === 0) throw new UsageError(problem ?? 'No record in this file could be read.');
  out.put(encodeUtf8(to === 'marcxml' ? MARCXML_END : ''));
  out.end();
  process.stderr.write(
    `osier: ${found.toLocaleString('en-GB')} of ${seen.toLocaleString('en-GB')} records found.${problem ? ` ${problem}` : ''}\n`,
  );
  return 0;
}
