export type { Pile, Piled, PiledKind } from './pile';
export { newToPile } from './pile';
