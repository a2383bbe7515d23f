import type { LinkRow } from '@osier/contract';
import type { LinkResult } from '@osier/core/links';
import { Mark, type MarkKind } from '../../parts/Mark';
import { when } from '../../parts/when';
import { catalogueWords as wording } from './words';

/** The mark of a result: what must be corrected stops, what may be right is a caution. */
export const markOfLink = (result: LinkResult): MarkKind =>
  result === 'fine'
    ? 'clear'
    : result === 'needs sign-in' || result === 'own network'
      ? 'information'
      : result === 'slow' || result === 'moved' || result === 'faulty'
        ? 'caution'
        : 'stop';

/** What was found when a link was tried, and when that was. */
export const LinkFound = ({ found }: { found: LinkRow['found'] }) =>
  found ? (
    <span>
      <Mark kind={markOfLink(found.result)} name={wording.linkResults[found.result]} /> {found.sentence}{' '}
      <span className="faded">{wording.triedOn(when(found.at))}</span>
    </span>
  ) : (
    <span className="faded">{wording.notTriedYet}</span>
  );
