import { registerColumns } from '@osier/core/withdrawals';
import { QueryTypes, type Sequelize } from 'sequelize';
import { keptValue } from '../kept-json';

/** The register of withdrawn copies is found, narrowed and sorted by what it says; scans by their codes. */
export const register: readonly string[] = [
  `ALTER TABLE withdrawn ADD COLUMN branch TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE withdrawn ADD COLUMN reason TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE withdrawn ADD COLUMN price INTEGER`,
  `ALTER TABLE withdrawn ADD COLUMN filing TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE withdrawn ADD COLUMN call_number TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE withdrawn ADD COLUMN words TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE withdrawn ADD COLUMN holding INTEGER NOT NULL DEFAULT 0`,
  `CREATE TABLE tellings (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, value TEXT NOT NULL CHECK (json_valid(value)), at TEXT NOT NULL)`,
  // What the union catalogue has been told of each row of the register, beside how it is.
  `CREATE TABLE union_rows (row INTEGER PRIMARY KEY, is_gone INTEGER NOT NULL, told INTEGER NOT NULL)`,
  `CREATE INDEX union_rows_to_tell ON union_rows (row) WHERE is_gone <> told`,
  // Of what the loans desk is still to be told, and what it refused.
  `CREATE TABLE loans_to_tell (row INTEGER PRIMARY KEY, barcode TEXT NOT NULL, is_gone INTEGER NOT NULL, refused TEXT NOT NULL DEFAULT '')`,
  `CREATE INDEX scans_code ON scans (code, purpose, work)`,
  `CREATE INDEX withdrawn_day ON withdrawn (withdrawn_on, id)`,
  `CREATE INDEX withdrawn_filing ON withdrawn (filing, id)`,
  `CREATE INDEX withdrawn_call_number ON withdrawn (call_number, id)`,
  `CREATE INDEX withdrawn_price ON withdrawn (price, id)`,
];

/** Fills in what rows of the register from before are found by. */
export async function fillRegister(sequelize: Sequelize): Promise<void> {
  const AT_ONCE = 1000;
  for (let after = 0; ;) {
    const rows = await sequelize.query<{ id: number; value: string }>(
      'SELECT id, value FROM withdrawn WHERE id > :after ORDER BY id LIMIT :limit',
      { replacements: { after, limit: AT_ONCE }, type: QueryTypes.SELECT },
    );
    const last = rows.at(-1);
    if (last === undefined) return;
    const filled = rows.map((r) => ({ id: r.id, ...registerColumns(keptValue('withdrawn', r.value)) }));
    await sequelize.query(
      `UPDATE withdrawn SET branch = v.value ->> 'branch', reason = v.value ->> 'reason', price = v.value ->> 'price', filing = v.value ->> 'filing',
         call_number = v.value ->> 'call_number', words = v.value ->> 'words', holding = v.value ->> 'holding' FROM json_each(:filled) v WHERE withdrawn.id = v.value ->> 'id'`,
      { replacements: { filled: JSON.stringify(filled) } },
    );
    after = last.id;
  }
}
