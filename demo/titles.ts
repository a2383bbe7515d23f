import type { Random } from './random';
import { PLACES, REGIONS, type Topic } from './topics';

export interface TitleParts {
  readonly a: string;
  readonly b: string;
  readonly skip: number;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

const SUBTITLES = [
  'a maker’s notebook',
  'with forty working drawings',
  'patterns and measurements',
  'tools, materials and methods',
  'a practical guide',
  'work and memory',
  'an illustrated account',
  'notes from the workshop',
  'a season by season handbook',
  'from photographs and farm accounts',
  'its tools and its people',
  'twelve projects for evening classes',
];

/** A title that a book on this craft might have, with its filing characters. */
export function titleFor(random: Random, topic: Topic): TitleParts {
  const thing = random.pick(topic.things);
  const place = random.pick(PLACES);
  const region = random.pick(REGIONS);
  const b = random.chance(0.55) ? random.pick(SUBTITLES) : '';
  const from = random.between(1780, 1910);
  const forms: (() => TitleParts)[] = [
    () => ({ a: `The ${topic.worker} of ${place}`, b, skip: 4 }),
    () => ({ a: `A handbook of ${topic.craft}`, b: b || `for schools and institutes`, skip: 2 }),
    () => ({
      a: capital(thing.replace(/^the /, '')),
      b: b || `a study of ${topic.craft} in ${region}`,
      skip: 0,
    }),
    () => ({
      a: `${capital(topic.craft)} in ${region}`,
      b: b || `${from}–${from + random.between(20, 90)}`,
      skip: 0,
    }),
    () => ({ a: `Notes on ${thing}`, b, skip: 0 }),
    () => ({ a: `An introduction to ${topic.craft}`, b, skip: 3 }),
    () => ({ a: `The ${place} book of ${topic.craft}`, b, skip: 4 }),
    () => ({ a: `Working with ${thing.replace(/^the /, '')}`, b, skip: 0 }),
    () => ({ a: `${capital(topic.craft)} for beginners`, b, skip: 0 }),
    () => ({ a: `Letters of a ${topic.worker}`, b: `${from}–${from + random.between(5, 30)}`, skip: 0 }),
    () => ({ a: `${place} and its ${topic.worker}s`, b, skip: 0 }),
    () => ({ a: `Teach yourself ${topic.craft}`, b, skip: 0 }),
    () => ({ a: `A ${topic.worker}’s year`, b, skip: 2 }),
    () => ({ a: `Lost crafts of ${place}`, b: `${topic.craft} and other trades`, skip: 0 }),
    () => ({ a: `${capital(thing.replace(/^the /, ''))} and how to make them last`, b, skip: 0 }),
    () => ({ a: `Seven lessons in ${topic.craft}`, b, skip: 0 }),
    () => ({ a: `The ${topic.worker}’s companion`, b, skip: 4 }),
    () => ({
      a: `Survey of ${topic.craft} in ${region}`,
      b: `report of the year ${random.between(1921, 1989)}`,
      skip: 0,
    }),
  ];
  return random.pick(forms)();
}
