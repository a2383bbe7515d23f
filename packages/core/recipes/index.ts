export type { Cleaned, Recipe, Step } from './recipe';
export { BUILT_IN, runRecipe, stepSentence } from './recipe';
