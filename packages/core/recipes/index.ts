export type { BuiltPart, Condition, KeptRecipe, Recipe, Step, StepBody, TextMatch } from './step';
export type { Cleaned } from './recipe';
export { BUILT_IN, runRecipe } from './recipe';
export { stepSentence } from './sentence';
export { recipeProblems, stepProblems } from './problems';
export type { StepFormSpec as StepForm, StepPart, StepPartKind } from './step-form';
export { STEP_FORMS } from './step-form';
export { stepsFromEdit } from './from-edit';
export { readRecipe, recipeFile } from './recipe-file';
