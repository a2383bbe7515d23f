import { isAddress, parseAddress } from '../address';

/** What is wrong with a written field address, as a sentence; nothing when it is one. */
export function* addressProblem(written: string): Iterable<string> {
  const address = parseAddress(written);
  if (!isAddress(address)) yield `“${written}” is not a field address: ${address.problem}`;
}
