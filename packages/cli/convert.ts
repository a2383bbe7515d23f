import { csvHead, readColumns, USUAL_COLUMNS } from '@osier/core/address';
import { encodeUtf8, MARCXML_END, MARCXML_START } from '@osier/core/marc';
import { closeSync, openSync, writeSync } from 'node:fs';
import { output } from './output';
import { workOn } from './source';
import { notOver, oneOf, readArguments, UsageError } from './usage';
import type { FinishedWork } from './work';

const FORMATS = ['iso2709', 'marcxml', 'json', 'lines', 'csv'] as const;

/** `osier convert`: reads records in any format and writes them in another. 0 clean, 2 repaired or lost, 1 nothing readable. */
export async function convert(args: readonly string[]): Promise<number> {
  const { file, options } = readArguments(args, ['to', 'from', 'charset', 'out', 'report', 'columns']);
  const to = oneOf('to', options.to, FORMATS);
  const from =
    options.from === undefined ? undefined : oneOf('from', options.from, ['iso2709', 'marcxml', 'json']);
  const charset = oneOf('charset', options.charset ?? 'utf8', ['utf8', 'marc8']);
  if (charset === 'marc8' && to !== 'iso2709')
    throw new UsageError('--charset marc8 goes with --to iso2709; the other formats are Unicode.');
  const columns = options.columns ?? USUAL_COLUMNS;
  const chosen = readColumns(columns);
  if (typeof chosen === 'string') throw new UsageError(chosen);
  for (const path of [options.out, options.report]) notOver(file, path);
  const head = to === 'marcxml' ? MARCXML_START : to === 'csv' ? csvHead(chosen) : '';
  let out: ReturnType<typeof output> | null = null;
  const report = reportTo(options.report);
  let [seen, written, troubled] = [0, 0, 0];
  const problem = await workOn(file, from, { act: 'convert', to, charset, columns }, (done) => {
    report.tell(seen, done);
    seen += done.seen;
    written += done.written;
    troubled += done.troubled;
    if (done.written === 0) return;
    if (!out) (out = output(options.out)).put(encodeUtf8(head));
    out.put(done.out);
  });
  report.end();
  if (written === 0) throw new UsageError(problem ?? 'No record in this file could be read.');
  out!.put(encodeUtf8(to === 'marcxml' ? MARCXML_END : ''));
  out!.end();
  if (problem) process.stderr.write(`osier: ${problem}\n`);
  return troubled > 0 || problem ? 2 : 0;
}

/** Repairs as newline-delimited JSON; records count from 1 through the file. */
function reportTo(path: string | undefined): { tell(before: number, done: FinishedWork): void; end(): void } {
  if (path === undefined) return { tell: () => undefined, end: () => undefined };
  const descriptor = openSync(path, 'w');
  return {
    tell(before, done) {
      const lines = done.repairs.map(
        ({ record, offset, code, message, repaired }) =>
          `${JSON.stringify({ record: before + record, offset, code, message, repaired })}\n`,
      );
      if (lines.length) writeSync(descriptor, lines.join(''));
    },
    end: () => closeSync(descriptor),
  };
}
