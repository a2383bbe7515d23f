import { openDatabase } from './database';
import { rebuildProjections } from '../projections';
import { KEYS_BEGIN, oldRecordKeys, recordKeysAnew } from '../projections/record-keys';
import { storeIn, type Store } from './store';

/**
 * Opens the store in a folder, brings it to the newest shape and its keys to the newest rules. `workers` is the folder of the
 * worker scripts; the keys of records that are there already are left to a job. Throws a sentence when another process has the folder.
 */
export async function openStore(folder: string, workers: string | null = null): Promise<Store> {
  const store = storeIn(await openDatabase(folder), workers);
  await rebuildProjections(store);
  if (!(await store.row('SELECT id FROM records LIMIT 1')) && (await oldRecordKeys(store)).index)
    await recordKeysAnew(store, KEYS_BEGIN);
  return store;
}
