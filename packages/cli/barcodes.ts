import { CODE_SCHEMES, readCode } from '@osier/core/barcodes';
import { createReadStream } from 'node:fs';
import { oneOf, readArguments } from './usage';

/** `osier barcodes`: codes, one a line, each as a JSON object a line that says whether it is right by a scheme. */
export async function barcodes(args: readonly string[]): Promise<number> {
  const { file, options } = readArguments(args, ['scheme']);
  const scheme = oneOf('scheme', options.scheme, CODE_SCHEMES);
  for await (const lines of linesOf(file === '-' ? process.stdin : createReadStream(file))) {
    const out = lines.map((input) => JSON.stringify({ input, ...readCode(scheme, input) }) + '\n').join('');
    if (!process.stdout.write(out)) await new Promise((done) => process.stdout.once('drain', done));
  }
  return 0;
}

/** The lines of a text in UTF-8, a piece at a time. They end in LF or CR LF, and in nothing else: another mark is part of a code. */
async function* linesOf(input: AsyncIterable<Buffer | string>): AsyncGenerator<string[]> {
  const decoder = new TextDecoder('utf-8');
  let rest = '';
  const cut = (line: string) => line.replace(/\r$/, '');
  for await (const piece of input) {
    const lines = (
      rest + (typeof piece === 'string' ? piece : decoder.decode(piece, { stream: true }))
    ).split('\n');
    rest = lines.pop() ?? '';
    if (lines.length) yield lines.map(cut);
  }
  rest += decoder.decode();
  if (rest !== '') yield [cut(rest)];
}
