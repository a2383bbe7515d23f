import { useState } from 'react';
import { ValidationError, type AnyObjectSchema } from 'yup';
import { problemText, RequestProblem } from '../../api/request';
import { useFormDraft, type DraftPlace } from './form-draft';

/** What is wrong with the parts of a form, by the dotted name of the part. */
export type Problems = Readonly<Record<string, string>>;

/** A form whose parts are filled in by controls of its own kind; see `SchemaForm` for one of plain fields. */
export interface Typed<T extends object> {
  readonly value: T;
  readonly set: (part: Partial<T>) => void;
  /** What is wrong with a part, by its dotted name. */
  readonly problem: (name: string) => string | undefined;
  /** What is wrong with no part that is on screen, or with the whole. */
  readonly refused: string | null;
  readonly isSending: boolean;
  /** Something is typed and not sent. */
  readonly isUnsaved: boolean;
  /** What was typed over has been saved otherwise since. */
  readonly isOvertaken: boolean;
  readonly discard: () => void;
  /** Checks what was typed by the schema, then does the act; what the schema or the server refuses stands beside its part. */
  readonly send: (act: (value: T) => Promise<unknown>) => Promise<boolean>;
}

/** Holds what is typed in a form; with `draft` it is kept in the browser until it is sent or discarded. */
export function useTyped<T extends object>({
  initial,
  schema,
  draft,
}: {
  initial: T;
  schema?: AnyObjectSchema;
  draft?: DraftPlace;
}): Typed<T> {
  const kept = useFormDraft<T>(draft, initial);
  const [value, setValue] = useState<T>(kept.begin);
  const [problems, setProblems] = useState<Problems>({});
  const [refused, setRefused] = useState<string | null>(null);
  const [isSending, setSending] = useState(false);
  const set = (part: Partial<T>) => {
    const next = { ...value, ...part };
    setValue(next);
    kept.keep(next);
    const touched = Object.keys(part);
    setProblems((all) =>
      Object.fromEntries(
        Object.entries(all).filter(([name]) => !touched.some((t) => name === t || name.startsWith(`${t}.`))),
      ),
    );
  };
  return {
    value,
    set,
    refused,
    isSending,
    isUnsaved: kept.isKept,
    isOvertaken: kept.isOvertaken,
    problem: (name) => problems[name],
    discard: () => {
      kept.drop();
      setValue(initial);
      setProblems({});
      setRefused(null);
    },
    send: async (act) => {
      setRefused(null);
      setProblems({});
      setSending(true);
      try {
        await schema?.validate(value, { abortEarly: false });
        await act(value);
        kept.drop();
        return true;
      } catch (error) {
        const found = problemsIn(error);
        setProblems(found);
        const count = Object.keys(found).length;
        setRefused(
          count > 1
            ? `${count} entries need a correction: ${firstOf(found)}`
            : (firstOf(found) ?? problemText(error)),
        );
        return false;
      } finally {
        setSending(false);
      }
    },
  };
}

const firstOf = (problems: Problems): string | undefined => Object.values(problems)[0];
/** `branches[2].code` and `sheet.name` as the dotted names of a form: `branches.2.code`, `name`. */
const dotted = (path: string) =>
  path.replace(/\[(\d+)\]/g, '.$1').replace(/^(sheet|roll|settings|recipe|neighbour)\./, '');

/** What a schema or the server refused, by dotted name. */
export function problemsIn(error: unknown): Problems {
  const told =
    error instanceof ValidationError
      ? (error.inner.length ? error.inner : [error]).map((e) => [e.path ?? '', e.message] as const)
      : error instanceof RequestProblem
        ? (error.problem.fields ?? []).map((f) => [f.field, f.message] as const)
        : [];
  const problems: Record<string, string> = {};
  for (const [path, message] of told) problems[dotted(path)] ??= message;
  return problems;
}
