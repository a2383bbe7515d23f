/** What is cut out of a stream of text that is fed in pieces. */
export interface Pieces<T> {
  push(text: string): T[];
  end(): T[];
  /** What is not done with. */
  rest(): string;
}

/**
 * Keeps the text that is not done with from piece to piece. `cut` is given what is there, how many characters of the stream
 * came before it, and whether no more will come; it puts what is complete on the list and gives how much of the text that took.
 */
export function inPieces<T>(
  cut: (text: string, offset: number, last: boolean, found: T[]) => number,
): Pieces<T> {
  let rest = '';
  let offset = 0;
  const take = (last: boolean): T[] => {
    const found: T[] = [];
    const done = cut(rest, offset, last, found);
    offset += done;
    rest = rest.slice(done);
    return found;
  };
  return {
    push(text) {
      rest += text;
      return take(false);
    },
    end: () => take(true),
    rest: () => rest,
  };
}
