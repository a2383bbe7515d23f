import type { ActParts } from '@osier/core/acts';
import type { Granted, Person, PersonBody, PersonChangeBody, PersonRow, Welcome } from '@osier/contract';
import { createHash, randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { notFound, wrong } from '../http/problem';
import type { Transaction } from '../store/database';
import type { PersonColumns } from '../store/models';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';
import { hashPassword, isPassword } from './passwords';
import {
  allPeople,
  countOtherHeads,
  countPeople,
  deleteSession,
  deleteSessions,
  insertPerson,
  insertSession,
  personById,
  personByLogin,
  personOfSession,
  tellAccount,
  updatePerson,
} from './queries';
import { knownSessions } from './known-sessions';
import { foldedLogin, loginProblem } from './sign-in-name';

const DAYS_SIGNED_IN = 14;
type Row = PersonColumns;

/** An account as others know it. */
export const person = ({ id, name, login, role, rights }: Row): Person => ({
  ...{ id, name, login, role },
  rights: keptJson<Granted[]>(rights),
});
const digest = (token: string) => createHash('sha256').update(token).digest('hex');

/** Which sessions have ended: those of a person, or the one with this digest. */
interface Ended {
  readonly person?: number;
  readonly session?: string;
}

/** Accounts and who is signed in. What changes them is told in the daybook, where it cannot be undone. */
export function peopleOf(store: Store, demo: boolean) {
  let firstCode: string | null = null;
  const sessions = knownSessions();
  const ended = new EventEmitter().setMaxListeners(0);
  const tellEnded = (what: Ended) => void ended.emit('ended', what);
  const byId = (id: number, on = store) => personById(on, id);
  const byLogin = (login: string, on = store) => personByLogin(on, foldedLogin(login), login);
  const all = () => allPeople(store);
  const tell = (tx: Transaction, by: number, of: string, did: ActParts['account']['did']) =>
    tellAccount(store, by, { act: 'account', names: { person: of }, did }, tx);

  async function signIn(row: Row): Promise<{ person: Person; token: string }> {
    const token = randomBytes(32).toString('base64url');
    const now = new Date();
    const expires = new Date(now.getTime() + DAYS_SIGNED_IN * 86_400_000).toISOString();
    const session = { token: digest(token), person: row.id, expires, now: now.toISOString() };
    await store.reserve((tx) => insertSession(store, session, tx));
    return { person: person(row), token };
  }

  const signInWith = async (login: string, password: string) => {
    const row = await byLogin(login);
    // The same work for an unknown name, so that the time tells nothing.
    const right = await isPassword(password, row?.password ?? '00:00');
    if (!row || !right || row.active !== 1) throw wrong('password', 'Sign-in name or password is not right.');
    return signIn(row);
  };

  /** Adds an account inside a transaction, where its name is still free. */
  async function insert(
    tx: Transaction,
    body: Omit<PersonBody, 'password'>,
    password: string,
    isDemo: boolean,
  ) {
    const inside = store.within(tx);
    const key = foldedLogin(body.login);
    if (await byLogin(body.login, inside))
      throw wrong('login', `The sign-in name “${body.login.trim()}” is taken.`);
    const login = body.login.trim();
    const made = { name: body.name.trim(), login, key, role: body.role, password, demo: isDemo ? 1 : 0 };
    await insertPerson(store, made, tx);
    return person((await personByLogin(inside, key, login))!);
  }

  const soundLogin = (login: string) => {
    const problem = loginProblem(login);
    if (problem) throw wrong('login', problem);
  };

  const add = async (body: PersonBody, isDemo = false, by?: number): Promise<Person> => {
    soundLogin(body.login);
    const password = isDemo ? '' : await hashPassword(body.password);
    return store.write(async (tx) => {
      const made = await insert(tx, body, password, isDemo);
      if (by !== undefined) await tell(tx, by, made.name, { how: 'added', role: made.role });
      return made;
    });
  };

  /** Changes an account. The last head that is active stays one. */
  const change = async (by: number, id: number, body: PersonChangeBody): Promise<PersonRow> => {
    const password = body.password ? await hashPassword(body.password) : null;
    const after = await store.write(async (tx) => {
      const inside = store.within(tx);
      const row = await byId(id, inside);
      if (!row) throw notFound(`Person ${id}`);
      sessions.forgetWhenStored(tx);
      const staysHead = body.active && body.role === 'head';
      if (row.role === 'head' && row.active === 1 && !staysHead && (await countOtherHeads(inside, id)) === 0)
        throw wrong('role', `${row.name} is the only head. Make somebody else head first.`);
      const { name, role, active } = body;
      const before = keptJson<Granted[]>(row.rights);
      const rights = [...new Set(body.rights ?? before)];
      const given = rights.filter((r) => !before.includes(r));
      const taken = before.filter((r) => !rights.includes(r));
      await updatePerson(
        store,
        { id, name, role, active: active ? 1 : 0, password, rights: JSON.stringify(rights) },
        tx,
      );
      if (!active || password) await deleteSessions(inside, id, '', tx);
      const changes = {
        ...(body.name !== row.name && { name: body.name }),
        ...(body.role !== row.role && { role: { from: row.role, to: body.role } }),
        ...(body.active !== (row.active === 1) && { active: body.active }),
        ...(given.length && { given }),
        ...(taken.length && { taken }),
        ...(password && { password: true }),
      };
      if (Object.keys(changes).length) await tell(tx, by, row.name, { how: 'changed', ...changes });
      return (await byId(id, inside))!;
    });
    if (!body.active || password) tellEnded({ person: id });
    return { ...person(after), active: after.active === 1 };
  };

  /** Ends all sessions of a person, but for one that is kept. */
  const endSessions = async (by: number, id: number, but: string | null = null): Promise<number> => {
    const many = await store.write(async (tx) => {
      const inside = store.within(tx);
      const row = await byId(id, inside);
      if (!row) throw notFound(`Person ${id}`);
      sessions.forgetWhenStored(tx);
      const n = await deleteSessions(inside, id, but === null ? '' : digest(but), tx);
      if (n > 0) await tell(tx, by, row.name, { how: 'sessions-ended', sessions: n });
      return n;
    });
    if (but === null) tellEnded({ person: id });
    else tellEnded({});
    return many;
  };

  const whoHas = async (token: string): Promise<Person | undefined> => {
    const [session, now] = [digest(token), new Date().toISOString()];
    return sessions.personOf(session, now, async () => {
      const row = await personOfSession(store, session, now);
      return row && { person: person(row), expires: row.expires };
    });
  };

  return {
    all: async (): Promise<PersonRow[]> =>
      (await all()).map((r) => ({ ...person(r), active: r.active === 1 })),
    welcome: async (who: Person | undefined): Promise<Welcome> => {
      const rows = await all();
      return {
        person: who ?? null,
        demo: demo
          ? rows.filter((r) => r.demo && r.active).map(({ id, name, role }) => ({ id, name, role }))
          : null,
        needsFirstHead: rows.length === 0,
      };
    },
    whoHas,
    /** Calls back once when a session has ended; gives what stops listening. */
    whenEnded: (token: string, who: number, done: () => void): (() => void) => {
      const hear = ({ person: id, session }: Ended) => {
        if (id === who || session === digest(token)) done();
        else if (id === undefined && session === undefined) void whoHas(token).then((p) => p ?? done());
      };
      ended.on('ended', hear);
      return () => void ended.off('ended', hear);
    },
    signInWith,
    signInAsDemo: async (id: number) => {
      const row = demo ? await byId(id) : undefined;
      if (!row?.demo || row.active !== 1) throw wrong('person', 'This person cannot be chosen.');
      return signIn(row);
    },
    signOut: async (token: string) => {
      await store.reserve(async (tx) => {
        sessions.forgetWhenStored(tx);
        await deleteSession(store, digest(token), tx);
      });
      tellEnded({ session: digest(token) });
    },
    add,
    change,
    endSessions,
    /** A person's own new password; other sessions end. */
    changePassword: async (who: Person, token: string, now: string, next: string): Promise<void> => {
      const row = await byId(who.id);
      if (!row || !(await isPassword(now, row.password))) throw wrong('now', 'This is not your password.');
      const password = await hashPassword(next);
      await store.write(async (tx) => {
        sessions.forgetWhenStored(tx);
        await updatePerson(store, { ...row, password }, tx);
        await deleteSessions(store.within(tx), who.id, digest(token), tx);
        await tell(tx, who.id, row.name, { how: 'changed', password: true });
      });
      tellEnded({});
    },
    /** The one-time code that makes the first head's account; null when there are people already. */
    firstHeadCode: async (): Promise<string | null> => {
      if ((await all()).length > 0) return null;
      firstCode ??= Array.from({ length: 3 }, () => String(randomInt(1000, 10000))).join('-');
      return firstCode;
    },
    /** Makes the first head, once: the code is looked at where nobody else can be made meanwhile. */
    addFirstHead: async (body: { code: string; name: string; login: string; password: string }) => {
      soundLogin(body.login);
      const password = await hashPassword(body.password);
      await store.write(async (tx) => {
        const n = await countPeople(store.within(tx));
        if (firstCode === null || !isCode(body.code.trim(), firstCode) || n > 0)
          throw wrong('code', 'This is not the code that the server printed when it started.');
        const made = await insert(tx, { ...body, role: 'head' }, password, false);
        await tell(tx, made.id, made.name, { how: 'first' });
      });
      firstCode = null;
      return signInWith(body.login, body.password);
    },
  };
}
export type People = ReturnType<typeof peopleOf>;

const isCode = (given: string, code: string): boolean =>
  given.length === code.length && timingSafeEqual(Buffer.from(digest(given)), Buffer.from(digest(code)));
