export { LINK_RESULTS, linkSentence, linksOf } from './links';
export type { LinkCheck, LinkResult, WebLink } from './links';
