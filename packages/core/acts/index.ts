export type { Act, ActName, ActParts, SearchName } from './act';
export { actSentence, actUndone, leftMeanwhile, searchName, settledParts } from './sentence';
export { namesInShort, quoted } from './words';
