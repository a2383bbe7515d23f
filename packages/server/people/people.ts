import type { Person, PersonBody, Welcome } from '@osier/contract';
import { createHash, randomBytes, randomInt } from 'node:crypto';
import { wrong } from '../http/problem';
import type { Store } from '../store/store';
import { hashPassword, isPassword } from './passwords';

const DAYS_SIGNED_IN = 14;
type Row = Person & { password: string; demo: number };

const person = ({ id, name, login, role }: Row): Person => ({ id, name, login, role });
const digest = (token: string) => createHash('sha256').update(token).digest('hex');

/** Accounts and who is signed in. */
export function peopleOf(store: Store, demo: boolean) {
  let firstCode: string | null = null;
  const byId = (id: number) => store.row<Row>('SELECT * FROM people WHERE id = :id', { id });
  const all = () => store.rows<Row>('SELECT * FROM people ORDER BY name');

  async function signIn(row: Row): Promise<{ person: Person; token: string }> {
    const token = randomBytes(32).toString('base64url');
    const expires = new Date(Date.now() + DAYS_SIGNED_IN * 86_400_000).toISOString();
    await store.write((tx) =>
      store.run(
        'INSERT INTO sign_ins (token, person, expires) VALUES (:token, :person, :expires)',
        { token: digest(token), person: row.id, expires },
        tx,
      ),
    );
    return { person: person(row), token };
  }

  const signInWith = async (login: string, password: string) => {
    const row = await store.row<Row>('SELECT * FROM people WHERE login = :login', { login });
    // The same work for an unknown name, so that the time tells nothing.
    const right = await isPassword(password, row?.password ?? '00:00');
    if (!row || !right) throw wrong('password', 'Sign-in name or password is not right.');
    return signIn(row);
  };

  const add = async (body: PersonBody, isDemo = false): Promise<Person> => {
    if (await store.row('SELECT id FROM people WHERE login = :login', { login: body.login }))
      throw wrong('login', `The sign-in name “${body.login}” is taken.`);
    const password = isDemo ? '' : await hashPassword(body.password);
    await store.write((tx) =>
      store.run(
        'INSERT INTO people (name, login, role, password, demo) VALUES (:name, :login, :role, :password, :demo)',
        { name: body.name, login: body.login, role: body.role, password, demo: isDemo ? 1 : 0 },
        tx,
      ),
    );
    return person(
      (await store.row<Row>('SELECT * FROM people WHERE login = :login', { login: body.login }))!,
    );
  };

  return {
    all: async () => (await all()).map(person),
    welcome: async (who: Person | undefined): Promise<Welcome> => {
      const rows = await all();
      return {
        person: who ?? null,
        demo: demo ? rows.filter((r) => r.demo).map(({ id, name, role }) => ({ id, name, role })) : null,
        needsFirstHead: rows.length === 0,
      };
    },
    whoHas: async (token: string): Promise<Person | undefined> => {
      const row = await store.row<Row>(
        'SELECT people.* FROM sign_ins JOIN people ON people.id = sign_ins.person WHERE token = :token AND expires > :now',
        { token: digest(token), now: new Date().toISOString() },
      );
      return row && person(row);
    },
    signInWith,
    signInAsDemo: async (id: number) => {
      const row = demo ? await byId(id) : undefined;
      if (!row?.demo) throw wrong('person', 'This person cannot be chosen.');
      return signIn(row);
    },
    signOut: (token: string) =>
      store.write((tx) =>
        store.run('DELETE FROM sign_ins WHERE token = :token', { token: digest(token) }, tx),
      ),
    add,
    /** The one-time code that makes the first head's account; null when there are people already. */
    firstHeadCode: async (): Promise<string | null> => {
      if ((await all()).length > 0) return null;
      firstCode ??= Array.from({ length: 3 }, () => String(randomInt(1000, 10000))).join('-');
      return firstCode;
    },
    addFirstHead: async (body: { code: string; name: string; login: string; password: string }) => {
      if (firstCode === null || body.code.trim() !== firstCode || (await all()).length > 0)
        throw wrong('code', 'This is not the code that the server printed when it started.');
      await add({ ...body, role: 'head' });
      firstCode = null;
      return signInWith(body.login, body.password);
    },
  };
}
export type People = ReturnType<typeof peopleOf>;
