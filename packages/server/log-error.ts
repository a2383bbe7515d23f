/** An error as it may stand in a log: what kind, and where in the program, without texts that may come from records or paths. */
export function errorForLog(error: unknown): Record<string, unknown> {
  if (!(error instanceof Error)) return { type: typeof error };
  const at = (error.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 6)
    .map((line) => line.trim().replace(/\(?(?:file:\/\/)?[^\s(]*[/\\]([^/\\]+?)\)?$/, '$1'));
  const code = codeOf(error);
  return {
    type: error.name,
    ...(code !== null && { code }),
    at,
    ...(error.cause ? { cause: errorForLog(error.cause) } : {}),
  };
}

/** The code of an error of the system or the database, also where it is wrapped in another. */
function codeOf(error: object): string | null {
  if ('code' in error && typeof error.code === 'string') return error.code;
  return 'original' in error && error.original instanceof Error ? codeOf(error.original) : null;
}
