export type { BuiltPart, Condition, Recipe, Step, StepBody, TextMatch } from './step';
export type { Cleaned } from './recipe';
export { BUILT_IN, runRecipe } from './recipe';
export { stepSentence } from './sentence';
export { recipeProblems } from './problems';
export { stepsFromEdit } from './from-edit';
export { readRecipe, recipeFile } from './recipe-file';
