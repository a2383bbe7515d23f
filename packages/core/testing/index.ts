export { generatedShelf, seeded, type GeneratedCopy, type GeneratedShelf } from './generated-shelf';
export { referenceStocktake, type ReferenceResult, type ReferenceStretch } from './stocktake-reference';
