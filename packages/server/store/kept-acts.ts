import { actSentence, actUndone, type Act } from '@osier/core/acts';
import { keptJson } from './kept-json';
import type { Store } from './store';

/** What a row of the daybook says of its act. */
export interface ActColumns {
  readonly sentence: string;
  readonly said: string | null;
}

/** The act of an entry; one from before acts were data is told by its sentence. */
export const actOf = ({ said, sentence }: ActColumns): Act =>
  said === null ? { act: 'told', sentence } : keptJson<Act>(said);

/** What an entry did, as a sentence. */
export const sentenceOfEntry = (row: ActColumns): string => actSentence(actOf(row));

interface Link extends ActColumns {
  readonly undoes: number | null;
}

/** The act of undoing an entry; undoing an undoing does the first act again. */
export async function actUndoing(store: Store, entry: number): Promise<Act> {
  let again = false;
  let row = await link(store, entry);
  while (row?.undoes) {
    again = !again;
    row = await link(store, row.undoes);
  }
  return { act: 'undo', of: row ? actUndone(actOf(row)) : { act: 'told', sentence: '' }, again };
}

const link = (store: Store, entry: number): Promise<Link | undefined> =>
  store.row<Link>('SELECT sentence, said, undoes FROM daybook WHERE id = :entry', { entry });
