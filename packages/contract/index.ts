export * from './answers';
export * from './inputs';
export * from './permissions';
