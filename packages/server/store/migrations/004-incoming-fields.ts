import { QueryTypes, type Sequelize } from 'sequelize';

/**
 * The fields of incoming records in a table of their own, so that deciding about a record does not write them; what is
 * counted over whole deliveries in small rows and an index; from when on a delivery's matching does not know the catalogue.
 */
export const incomingFields = [
  `CREATE TABLE incoming_fields (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, title TEXT NOT NULL, author TEXT NOT NULL, isbn TEXT NOT NULL,
    year TEXT NOT NULL, errors INTEGER NOT NULL, warnings INTEGER NOT NULL, advice INTEGER NOT NULL, findings TEXT NOT NULL, value TEXT NOT NULL)`,
  `INSERT INTO incoming_fields SELECT id, version, title, author, isbn, year, errors, warnings, advice, findings,
    json_object('marc', json_extract(value, '$.marc'), 'recipe', json_extract(value, '$.recipe')) FROM incoming`,
  `CREATE TABLE incoming_small (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, delivery INTEGER NOT NULL, seq INTEGER NOT NULL, state TEXT NOT NULL,
    decision TEXT NOT NULL, record INTEGER, copies INTEGER NOT NULL, copy_problems INTEGER NOT NULL, note TEXT NOT NULL, value TEXT NOT NULL)`,
  `INSERT INTO incoming_small SELECT id, version, delivery, seq, state, decision, record, copies, copy_problems, note, ${decisionOf('value')} FROM incoming`,
  `DROP TABLE incoming`,
  `ALTER TABLE incoming_small RENAME TO incoming`,
  `CREATE UNIQUE INDEX incoming_seq ON incoming (delivery, seq)`,
  `CREATE INDEX incoming_counts ON incoming (delivery, state, decision, copies, copy_problems)`,
  `CREATE INDEX incoming_record ON incoming (record) WHERE record IS NOT NULL`,
  `CREATE TABLE incoming_first (incoming INTEGER PRIMARY KEY, matches TEXT NOT NULL, repeats INTEGER, repairs TEXT NOT NULL, before TEXT NOT NULL, original TEXT NOT NULL)`,
  `INSERT INTO incoming_first SELECT incoming, matches, repeats, repairs, before, original FROM incoming_read`,
  `DROP TABLE incoming_read`,
  `ALTER TABLE incoming_first RENAME TO incoming_read`,
  `ALTER TABLE readings ADD COLUMN since INTEGER NOT NULL DEFAULT 0`,
];

/** What is decided about a record, without its fields; what an older store lacks is filled in. */
function decisionOf(value: string): string {
  return `json_set(json_remove(${value}, '$.marc', '$.recipe'), '$.edits', 0,
    '$.chosen', json(CASE WHEN json_extract(${value}, '$.chosen') = 0 THEN 'false' ELSE 'true' END),
    '$.copies', json(COALESCE(json_extract(${value}, '$.copies'), '[]')), '$.note', COALESCE(json_extract(${value}, '$.note'), ''))`;
}

type Value = Record<string, unknown> & { marc: unknown; recipe?: unknown };
interface OldChange {
  kind: string;
  id: number;
  version: number;
  before: Value | null;
  after: Value | null;
}

const decision = (value: Value | null) => {
  if (value === null) return null;
  const { marc: _marc, recipe: _recipe, ...rest } = value;
  return { chosen: true, copies: [], note: '', ...rest, edits: 0 };
};
const fields = (value: Value | null) =>
  value === null ? null : { marc: value.marc, recipe: value.recipe ?? null };

/** Parts one change of an incoming record into that of the decision and that of the fields. */
function parted(change: OldChange): unknown[] {
  if (change.kind !== 'incoming') return [change];
  const { id, version, before, after } = change;
  const both = [
    { kind: 'incoming', id, version, before: decision(before), after: decision(after) },
    { kind: 'fields', id, version, before: fields(before), after: fields(after) },
  ];
  return both.filter((c) => JSON.stringify(c.before) !== JSON.stringify(c.after));
}

/** Brings the daybook along, so that what was done before can still be taken back. */
export async function partDaybook(sequelize: Sequelize): Promise<void> {
  const parts = await sequelize.query<{ entry: number; part: number }>(
    `SELECT entry, part FROM daybook_parts WHERE changes LIKE '%"kind":"incoming"%'`,
    { type: QueryTypes.SELECT },
  );
  for (const { entry, part } of parts) {
    const bind = [entry, part];
    const [row] = await sequelize.query<{ changes: string }>(
      'SELECT changes FROM daybook_parts WHERE entry = $1 AND part = $2',
      { bind, type: QueryTypes.SELECT },
    );
    const changes = (JSON.parse(row!.changes) as OldChange[]).flatMap(parted) as OldChange[];
    await sequelize.query('UPDATE daybook_parts SET changes = $3 WHERE entry = $1 AND part = $2', {
      bind: [...bind, JSON.stringify(changes)],
    });
    for (const { kind, id } of changes)
      if (kind === 'fields')
        await sequelize.query(
          "INSERT OR IGNORE INTO daybook_objects (kind, object, entry) VALUES ('fields', $1, $2)",
          { bind: [id, entry] },
        );
  }
}
