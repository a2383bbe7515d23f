import type { Person } from '@osier/contract';
import type { Transaction } from '../store/database';

/** Who has a session, and until when (ISO). */
interface KnownSession {
  readonly person: Person;
  readonly expires: string;
}

/** More sessions than this are not remembered at once. */
const MOST = 1000;

/**
 * Who has which session, by the digest of its token, so that not every request asks the store. Whatever changes an account or ends a session
 * forgets all of it when it is stored, also what was being read meanwhile.
 */
export function knownSessions() {
  const known = new Map<string, KnownSession>();
  let forgotten = 0;
  return {
    /** Who has the session now; `read` asks the store. Undefined for nobody. */
    async personOf(
      token: string,
      now: string,
      read: () => Promise<KnownSession | undefined>,
    ): Promise<Person | undefined> {
      const before = known.get(token);
      if (before && before.expires > now) return before.person;
      const from = forgotten;
      const session = await read();
      if (session && from === forgotten) {
        if (known.size >= MOST) known.clear();
        known.set(token, session);
      }
      return session?.person;
    },
    /** Forgets all when what the transaction does is stored. */
    forgetWhenStored: (tx: Pick<Transaction, 'whenStored'>): void =>
      tx.whenStored(() => {
        forgotten++;
        known.clear();
      }),
  };
}
