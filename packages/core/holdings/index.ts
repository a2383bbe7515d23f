export type { CodeLists, Copy, CopyStatus, Holding, Withdrawn } from './objects';
export { COPY_STATUSES } from './objects';
export type { FieldProblem } from './code-check';
export { codeProblem, placeProblems } from './code-check';
