import { api, filledPath } from '@osier/contract';
import { Button } from 'antd';
import { useState } from 'react';
import { useAsking } from './asking-store';
import type { BookCandidate } from './candidates';
import { neighboursWords as wording } from './words';

/** The cover that a record links to, where there is one that can be shown; it is never needed. */
export function Cover({ candidate: { key, neighbour, facts } }: { candidate: BookCandidate }) {
  const { wrongCovers, markCover } = useAsking();
  const [isThere, setThere] = useState(true);
  if (facts.cover === '' || !isThere) return null;
  const isWrong = wrongCovers.includes(key);
  const path = filledPath(api.neighbours.cover.path, { id: neighbour.id }, { address: facts.cover });
  return (
    <figure className={isWrong ? 'book-cover wrong' : 'book-cover'}>
      <img src={`/api${path}`} alt={wording.coverOf(facts.title)} onError={() => setThere(false)} />
      <figcaption>{isWrong ? wording.coverIsWrong : wording.coverIsShown}</figcaption>
      <Button size="small" data-key="w" aria-pressed={isWrong} onClick={() => markCover(key)}>
        {wording.wrongCover} <kbd>w</kbd>
      </Button>
    </figure>
  );
}
