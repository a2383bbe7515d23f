import type { Act } from '@osier/core/acts';
import type { Transaction } from '../store/database';
import type { PersonColumns } from '../store/models';
import type { Store } from '../store/store';

/** All accounts by name. */
export const allPeople = (store: Store): Promise<PersonColumns[]> =>
  store.table('people').find({
    order: [
      ['name', 'ASC'],
      ['id', 'ASC'],
    ],
  });

/** One account. */
export const personById = (store: Store, id: number): Promise<PersonColumns | undefined> =>
  store.table('people').first({ where: { id } });

/** An account by its folded sign-in name, or by the name just as it was typed. */
export const personByLogin = (store: Store, key: string, login: string): Promise<PersonColumns | undefined> =>
  store.row<PersonColumns>(
    'SELECT * FROM people WHERE login_key = :key OR login = :login ORDER BY login_key = :key DESC LIMIT 1',
    { key, login },
  );

/** How many accounts there are. */
export const countPeople = (store: Store): Promise<number> => store.table('people').count({});

/** How many other active heads there are. */
export const countOtherHeads = async (store: Store, but: number): Promise<number> =>
  (await store.row<{ n: number }>(
    "SELECT COUNT(*) AS n FROM people WHERE role = 'head' AND active = 1 AND id <> :but",
    { but },
  ))!.n;

/** Who has a session that has not expired, by the digest of its token; nobody whose account is not active. */
export const personOfSession = (
  store: Store,
  token: string,
  now: string,
): Promise<(PersonColumns & { readonly expires: string }) | undefined> =>
  store.row<PersonColumns & { readonly expires: string }>(
    'SELECT people.*, sign_ins.expires FROM sign_ins JOIN people ON people.id = sign_ins.person WHERE token = :token AND expires > :now AND people.active = 1',
    { token, now },
  );

/** An account that is made. */
export interface NewPerson {
  readonly name: string;
  readonly login: string;
  readonly key: string;
  readonly role: string;
  readonly password: string;
  readonly demo: number;
}
/** Adds an account. */
export const insertPerson = (store: Store, person: NewPerson, tx: Transaction): Promise<void> =>
  store.run(
    'INSERT INTO people (name, login, login_key, role, password, demo) VALUES (:name, :login, :key, :role, :password, :demo)',
    { ...person },
    tx,
  );

/** Writes name, role and state of an account, and its password where one is given. */
export const updatePerson = (
  store: Store,
  person: {
    readonly id: number;
    readonly name: string;
    readonly role: string;
    readonly active: number;
    readonly password: string | null;
    /** JSON. */
    readonly rights: string;
  },
  tx: Transaction,
): Promise<void> =>
  store.run(
    'UPDATE people SET name = :name, role = :role, active = :active, rights = :rights, password = COALESCE(:password, password) WHERE id = :id',
    { ...person },
    tx,
  );

/** Begins a session; those that have expired go. */
export async function insertSession(
  store: Store,
  session: {
    readonly token: string;
    readonly person: number;
    readonly expires: string;
    readonly now: string;
  },
  tx: Transaction,
): Promise<void> {
  await store.run('DELETE FROM sign_ins WHERE expires <= :now', { now: session.now }, tx);
  await store.run(
    'INSERT INTO sign_ins (token, person, expires) VALUES (:token, :person, :expires)',
    { token: session.token, person: session.person, expires: session.expires },
    tx,
  );
}

/** Ends a session. */
export const deleteSession = (store: Store, token: string, tx: Transaction): Promise<void> =>
  store.run('DELETE FROM sign_ins WHERE token = :token', { token }, tx);

/** Ends the sessions of a person but for one ('' for none), and gives how many there were. */
export async function deleteSessions(
  store: Store,
  id: number,
  but: string,
  tx: Transaction,
): Promise<number> {
  const { n } = (await store.row<{ n: number }>(
    'SELECT COUNT(*) AS n FROM sign_ins WHERE person = :id AND token <> :but',
    { id, but },
  ))!;
  await store.run('DELETE FROM sign_ins WHERE person = :id AND token <> :but', { id, but }, tx);
  return n;
}

/** Tells in the daybook what was done with an account; it has no objects, and cannot be undone. */
export const tellAccount = (store: Store, by: number, did: Act, tx: Transaction): Promise<void> =>
  store.run(
    "INSERT INTO daybook (at, person, act, sentence, said, objects) VALUES (:at, :by, 'account', '', :said, 0)",
    { at: new Date().toISOString(), by, said: JSON.stringify(did) },
    tx,
  );
