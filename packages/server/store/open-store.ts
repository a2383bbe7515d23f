import { openDatabase } from './database';
import { rebuildProjections } from '../projections';
import { storeIn, type Store } from './store';

/**
 * Opens the store in a folder, brings it to the newest shape and its keys to the newest rules. `workers` is the folder of the
 * worker scripts. Throws a sentence when another process has the folder.
 */
export async function openStore(folder: string, workers: string | null = null): Promise<Store> {
  const store = storeIn(await openDatabase(folder), workers);
  await rebuildProjections(store);
  return store;
}
