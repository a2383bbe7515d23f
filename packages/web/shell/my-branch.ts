import { create } from 'zustand';
import { usePerson } from './person';

const keyOf = (person: number) => `osier-branch-${person}`;

interface MyBranch {
  /** By person: the branch that one works at, '' for none. */
  readonly of: Readonly<Record<number, string>>;
  choose(person: number, branch: string): void;
}

const useBranches = create<MyBranch>((set) => ({
  of: {},
  choose(person, branch) {
    localStorage.setItem(keyOf(person), branch);
    set(({ of }) => ({ of: { ...of, [person]: branch } }));
  },
}));

/** The branch that a person works at, with the way to choose another; the forms begin with it. Remembered on this computer. */
export function useMyBranch(): readonly [branch: string, choose: (branch: string) => void] {
  const { id } = usePerson();
  const { of, choose } = useBranches();
  return [of[id] ?? localStorage.getItem(keyOf(id)) ?? '', (branch) => choose(id, branch)];
}
