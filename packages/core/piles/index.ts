export type { Pile, Piled, PiledKind } from './pile';
export { countedOn, newToPile } from './pile';
