import { create } from 'zustand';
import { queries } from '../api/queries';
import { onSignedOut } from '../api/request';

interface Session {
  /** The server does not know who one is any more: signed out elsewhere, or away too long. */
  readonly isOver: boolean;
}

/** Whether the sign-in still holds. */
export const useSession = create<Session>(() => ({ isOver: false }));

const CHANNEL = 'osier-session';
/** Who signed in or out is told to the other pages of this browser. */
export type SessionNews = { readonly person: number | null };

const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(CHANNEL);

/** Tells the other pages of this browser who is signed in now; null for nobody. */
export const tellSession = (person: number | null): void =>
  channel?.postMessage({ person } satisfies SessionNews);

/**
 * Follows the sign-in of one person from now on: an answer of 401 asks to sign in again over what is on screen, and so does a sign-out in
 * another page; another person's sign-in there begins this page anew. Gives the way to stop.
 */
export function followSession(person: number): () => void {
  const begin = ({ data }: MessageEvent<SessionNews>) => {
    if (data.person === null) useSession.setState({ isOver: true });
    else if (data.person !== person) window.location.assign('/');
    else takeUp();
  };
  const stop = onSignedOut(() => useSession.setState({ isOver: true }));
  channel?.addEventListener('message', begin);
  return () => {
    stop();
    channel?.removeEventListener('message', begin);
  };
}

/** Goes on where one was: the sign-in holds again. */
export function takeUp(): void {
  useSession.setState({ isOver: false });
  void queries.invalidateQueries();
}
