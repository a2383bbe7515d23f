import { join } from 'node:path';
import { Sequelize } from 'sequelize';

/**
 * Takes a folder for this process alone and gives what lets go of it. The lock is one of the operating system on a file of
 * its own, so that it ends with the process, however that ends. Throws a sentence when somebody else has the folder.
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  const lock = new Sequelize({
    dialect: 'sqlite',
    storage: join(folder, 'in-use.lock'),
    logging: false,
    retry: { max: 0 },
  });
  try {
    await lock.query('PRAGMA busy_timeout = 0');
    await lock.query('BEGIN EXCLUSIVE');
  } catch (error) {
    await lock.close();
    if (/SQLITE_BUSY/.test(String(error)))
      throw new Error(
        `Another Osier is already using the data folder ${folder}. Stop it first, or set OSIER_DATA to another folder.`,
        { cause: error },
      );
    throw error;
  }
  return async () => {
    await lock.query('ROLLBACK').catch(() => undefined);
    await lock.close();
  };
}
