import type { HouseRules } from '../house';
import type { RecordView } from './view';

/**
 * Whether the marks of the ISBD are expected in this record: the house keeps them, and leader/18 says that they are
 * there (a AACR 2, i ISBD punctuation included).
 */
export const followsIsbd = (view: RecordView, house: HouseRules): boolean =>
  house.punctuation === 'kept' && 'ai'.includes(view.record.leader[18] ?? ' ');

/** Text that ends with a mark instead of any other mark of the ISBD; a comma stands for a full stop too. */
export const withMark = (text: string, mark: string): string =>
  text
    .trimEnd()
    .replace(mark === ',' ? /(?:\s+[:;=/+]|[,;:.])$/ : /(?:\s+[:;=/+]|[,;:])$/, '')
    .trimEnd() + mark;
