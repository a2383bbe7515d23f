// The rows and index entries that stand in a store after some work and did not before, inserted through the sqlite3 driver into a
// copy of the store as it was: what the work would cost if nothing but writing had to be done. Run as a bundle:
// FOLDER holds `before.sqlite` and `osier.sqlite`; `bare.json` there says in how many seconds (`seconds`), and by table how many rows (`rows`) in how many milliseconds (`took`).
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';
import { wordsAt } from '@osier/core/access';
import { pointsOf } from '../packages/server/store/index-records.ts';
import { copyToDisk } from './copy-to-disk.mjs';

const AT_ONCE = 5000;
/** Words go over as many at a time as the server has them: those of a chunk of work. */
const WORDS_AT_ONCE = 200;
/** What comparing keeps when the work is over, and what a server notes about itself, are not the work's. */
const NOT_OF_THE_WORK =
  /^(alike_|record_pairs|records_to_compare|records_touched|jobs|sign_ins|SequelizeMeta)/;
const WORDS = { record_words: ['records', 'record'], heading_words: ['headings', 'heading'] };

const folder = process.argv[2];
copyToDisk(join(folder, 'before.sqlite'), join(folder, 'bare.sqlite'));
const source = await open(join(folder, 'osier.sqlite'));
const target = await open(join(folder, 'bare.sqlite'));
await source.exec(`ATTACH '${join(folder, 'before.sqlite')}' AS before; PRAGMA temp_store = FILE`);
await target.exec('PRAGMA journal_mode = WAL; PRAGMA synchronous = NORMAL; PRAGMA cache_size = -65536');

const [counts, took] = [{}, {}];
let spent = 0;
for (const table of await tables()) await each(await made(table), (rows) => put('OR REPLACE', table, rows));
for (const [words, [table, kind]] of Object.entries(WORDS)) {
  const { words: points } = pointsOf(kind);
  const rowOf = ({ id, value }) => {
    const object = JSON.parse(value);
    return { rowid: id, ...Object.fromEntries(points.map((p) => [p.name, wordsAt(p, object)])) };
  };
  const rows = await made(table);
  const known = `id IN (SELECT id FROM before.${table})`;
  // A new row is not looked for first.
  await each(rows, (some) => put('', words, some.map(rowOf), WORDS_AT_ONCE), `NOT ${known}`);
  await each(rows, (some) => put('OR REPLACE', words, some.map(rowOf)), known);
}
await source.close();
await target.close();
writeFileSync(join(folder, 'bare.json'), JSON.stringify({ seconds: spent / 1000, rows: counts, took }));

/** The tables that hold rows themselves: no index of words, nor what one keeps for itself. */
async function tables() {
  const found = await source.all(
    `SELECT name FROM main.sqlite_master m WHERE type = 'table' AND sql NOT LIKE 'CREATE VIRTUAL%' AND name NOT LIKE 'sqlite_%'
       AND NOT EXISTS (SELECT 1 FROM main.sqlite_master v WHERE v.sql LIKE 'CREATE VIRTUAL TABLE%' AND m.name LIKE v.name || '_%')`,
  );
  return found.map((t) => t.name).filter((name) => !NOT_OF_THE_WORK.test(name));
}

/** The rows of a table that the work made or changed, in a table of their own. */
async function made(table) {
  const name = `made_${table}`;
  await source.exec(
    `CREATE TEMP TABLE IF NOT EXISTS ${name} AS SELECT * FROM main.${table} EXCEPT SELECT * FROM before.${table}`,
  );
  return name;
}

async function each(table, act, which = 'true') {
  for (let after = 0; ;) {
    const rows = await source.all(
      `SELECT rowid AS made_at, * FROM temp.${table} WHERE rowid > ${after} AND ${which} ORDER BY rowid LIMIT ${AT_ONCE}`,
    );
    if (rows.length === 0) return;
    after = rows.at(-1).made_at;
    for (const row of rows) delete row.made_at;
    await act(rows);
  }
}

/** A row that was changed takes the place of the one that stood there (`OR REPLACE`). */
async function put(verb, table, rows, atOnce = 1) {
  counts[table] = (counts[table] ?? 0) + rows.length;
  const columns = Object.keys(rows[0]);
  const marks = `(${columns.map(() => '?').join(', ')})`;
  const prepared = (n) =>
    target.prepare(
      `INSERT ${verb} INTO ${table} (${columns.map((c) => `"${c}"`).join(', ')}) VALUES ${Array(n).fill(marks).join(', ')}`,
    );
  const began = performance.now();
  await target.exec('BEGIN');
  const whole = rows.length - (rows.length % atOnce);
  const statement = await prepared(atOnce);
  let last;
  for (let at = 0; at < whole; at += atOnce)
    last = statement.run(rows.slice(at, at + atOnce).flatMap((row) => columns.map((c) => row[c])));
  await last;
  await statement.finalize();
  if (whole < rows.length) {
    const rest = await prepared(rows.length - whole);
    await rest.run(rows.slice(whole).flatMap((row) => columns.map((c) => row[c])));
    await rest.finalize();
  }
  await target.exec('COMMIT');
  const ms = performance.now() - began;
  spent += ms;
  took[table] = (took[table] ?? 0) + ms;
}

/** The sqlite3 driver with promises; statements that are run go on without waiting. */
function open(path) {
  const promise = (act) =>
    new Promise((resolve, reject) => act((error, result) => (error ? reject(error) : resolve(result))));
  return new Promise((resolve, reject) => {
    const db = new sqlite3.Database(path, (error) => {
      if (error) return reject(error);
      resolve({
        all: (sql) => promise((done) => db.all(sql, done)),
        exec: (sql) => promise((done) => db.exec(sql, done)),
        close: () => promise((done) => db.close(done)),
        prepare: (sql) =>
          new Promise((ready, fail) => {
            const statement = db.prepare(sql, (e) =>
              e
                ? fail(e)
                : ready({
                    run: (values) => promise((done) => statement.run(values, done)),
                    finalize: () => promise((done) => statement.finalize(done)),
                  }),
            );
          }),
      });
    });
  });
}
