import { isFit } from '@osier/contract';
import type { Request } from 'express';
import { wrong } from './problem';

const LONGEST = 1000;

/** The parameters behind the path, each once; one with characters that no text may have is refused by name. */
export function queryOf(req: Request): Readonly<Record<string, string | undefined>> {
  const found = new Map<string, string>();
  for (const [name, given] of new URL(req.originalUrl, 'http://local').searchParams) {
    if (!isFit(given) || given.includes('\ufffd'))
      throw wrong(name, `There is a character in “${name}” that no text can have.`);
    if (given.length > LONGEST) throw wrong(name, `“${name}” has more than ${LONGEST} characters.`);
    found.set(name, given);
  }
  return Object.fromEntries(found);
}
