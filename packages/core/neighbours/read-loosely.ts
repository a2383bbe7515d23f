import type { SaxesParser } from 'saxes';

/** Faults after which a text is read no further: it is no XML, and each costs time. */
const MOST_FAULTS = 200;
class TooBroken extends Error {}

/** Has a parser read a text whatever is wrong with it, as far as that makes sense. */
export function readLoosely(parser: SaxesParser, text: string): void {
  let faults = 0;
  parser.on('error', () => {
    if (++faults > MOST_FAULTS) throw new TooBroken();
  });
  try {
    parser.write(text).close();
  } catch (error) {
    if (!(error instanceof TooBroken)) throw error;
  }
}
