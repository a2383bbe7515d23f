import { existsSync, statSync } from 'node:fs';

/** A command that was not given as it should be; told in one line. */
export class UsageError extends Error {}

/** Splits arguments into the file and options; an option that is not known, or without its value, is an error. */
export function readArguments(
  args: readonly string[],
  options: readonly string[],
  flags: readonly string[] = [],
): { file: string; options: Record<string, string>; flags: Set<string> } {
  const found: Record<string, string> = {};
  const set = new Set<string>();
  let file: string | undefined;
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!;
    if (arg.startsWith('--')) {
      const name = arg.slice(2);
      if (flags.includes(name)) set.add(name);
      else if (!options.includes(name)) throw new UsageError(`There is no option ${arg}.`);
      else if (args[i + 1] === undefined) throw new UsageError(`${arg} needs a value.`);
      else found[name] = args[++i]!;
    } else if (file === undefined) file = arg;
    else throw new UsageError(`One file at a time: ${arg} is one more.`);
  }
  if (file === undefined) throw new UsageError('Name a file, or - for standard input.');
  return { file, options: found, flags: set };
}

/** Reads arguments that are options with values, each of them needed; gives the value of one. */
export function readOptions<T extends string>(
  args: readonly string[],
  names: readonly T[],
): (name: T) => string {
  const { options } = readArguments(['-', ...args], names);
  const lacking = names.filter((n) => options[n] === undefined);
  if (lacking.length) throw new UsageError(`Give ${lacking.map((n) => `--${n} FILE`).join(' ')}.`);
  return (name) => options[name] ?? '';
}

/** Refuses to write over the file that is being read: what is not read yet would be lost. */
export function notOver(file: string, out: string | undefined): void {
  if (file === '-' || out === undefined || !existsSync(out) || !existsSync(file)) return;
  const [from, to] = [statSync(file), statSync(out)];
  if (from.isFile() && from.dev === to.dev && from.ino === to.ino)
    throw new UsageError(`${out} is the file that is read; give the result another name.`);
}

/** The value of an option that must be one of some. */
export function oneOf<T extends string>(name: string, value: string | undefined, allowed: readonly T[]): T {
  if (value !== undefined && (allowed as readonly string[]).includes(value)) return value as T;
  throw new UsageError(
    `--${name} is one of ${allowed.join(', ')}${value === undefined ? '' : `, not “${value}”`}.`,
  );
}
