export type { Act, ActName, ActParts, SearchName } from './act';
export { ACT_AREAS, ACT_KINDS, ACT_NAMES, actsOfArea, type ActArea } from './area';
export { actSentence, actUndone, leftMeanwhile, searchName, settledParts } from './sentence';
export { namesInShort, quoted } from './words';
export { editsText } from './edits-text';
