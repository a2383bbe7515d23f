export type { Recognition } from './recognise';
export { recogniseInput } from './recognise';
