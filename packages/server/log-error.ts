/** An error as it may stand in a log: what kind, and where in the program, without texts that may come from records or paths. */
export function errorForLog(error: unknown): Record<string, unknown> {
  if (!(error instanceof Error)) return { type: typeof error };
  const at = (error.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 6)
    .map((line) => line.trim().replace(/\(?(?:file:\/\/)?[^\s(]*[/\\]([^/\\]+?)\)?$/, '$1'));
  const code =
    (error as { code?: unknown; original?: { code?: unknown } }).code ??
    (error as { original?: { code?: unknown } }).original?.code;
  return {
    type: error.name,
    ...(typeof code === 'string' && { code }),
    at,
    ...(error.cause ? { cause: errorForLog(error.cause) } : {}),
  };
}
