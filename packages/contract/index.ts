export * from './answers';
export * from './inputs';
export { isCommon } from './common-passwords';
export { isFit } from './values';
export * from './permissions';
