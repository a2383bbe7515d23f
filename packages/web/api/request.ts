import { CHANGED_HEADER, type Changed, type Problem } from '@osier/contract';

/** What the server said no with: a sentence, and the fields it concerns. */
export class RequestProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
  /** The message for one field of a form. */
  field(name: string): string | undefined {
    return this.problem.fields?.find((f) => f.field.replace(/^(sheet|roll|settings)\./, '') === name)
      ?.message;
  }
  /** Whether all that is refused may be had all the same, on purpose. */
  get isOverrulable(): boolean {
    const { fields = [] } = this.problem;
    return fields.length > 0 && fields.every((f) => f.overrulable);
  }
}

const UNREACHED: Problem = {
  type: 'about:blank',
  title: 'Not reached',
  status: 0,
  detail: 'The server was not reached. What you typed is still here; try again in a moment.',
};

/** What the last act told that it changed; null when it told nothing, or failed, so that anything may be different. */
let lastAct: readonly Changed[] | null = null;
export const changedByLastAct = (): readonly Changed[] | null => lastAct;

/** Entries that acts of this page have made: the live stream tells them once more. */
const ownEntries = new Set<number>();
export const isOwnEntry = (entry: number | null): boolean => entry !== null && ownEntries.has(entry);

function changedIn(response: Response): readonly Changed[] | null {
  const told = response.headers.get(CHANGED_HEADER);
  if (!told) return null;
  const changed = JSON.parse(told) as readonly Changed[];
  for (const { entry } of changed) if (entry !== null) ownEntries.add(entry);
  return changed;
}

const whenSignedOut = new Set<() => void>();
/** Has something done when the server does not know any more who asks; gives the way to stop. */
export function onSignedOut(act: () => void): () => void {
  whenSignedOut.add(act);
  return () => whenSignedOut.delete(act);
}
/** The sign-in itself answers 401 to a wrong password. */
const isSignIn = (path: string) => path.startsWith('/sign-in');

/** Asks a path of the API; what comes is what the contract says of it. Use `call`, which knows the types. */
export async function request<T>(
  method: string,
  path: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      credentials: 'same-origin',
      signal,
      ...(body === undefined
        ? {}
        : body instanceof Blob
          ? { body, headers: { 'content-type': 'application/octet-stream' } }
          : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    });
  } catch {
    throw new RequestProblem(UNREACHED);
  }
  if (method !== 'GET') lastAct = response.ok ? changedIn(response) : null;
  const text = await response.text();
  const answer: unknown =
    text && response.headers.get('content-type')?.includes('json') ? JSON.parse(text) : null;
  if (response.status === 401 && !isSignIn(path)) for (const act of whenSignedOut) act();
  if (!response.ok) throw refusalIn(answer, response.status);
  return answer as T;
}

/** What an answer that is no success says; the bare status where it says nothing. */
export const refusalIn = (answer: unknown, status: number): RequestProblem =>
  new RequestProblem(
    (answer as Problem | null) ?? { ...UNREACHED, status, detail: `The server answered ${status}.` },
  );

export const problemText = (error: unknown): string =>
  error instanceof Error ? error.message : 'Something went wrong.';
