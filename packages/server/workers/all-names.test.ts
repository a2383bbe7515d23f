import { headingFrom, headingsOf } from '@osier/core/headings';
import { field } from '@osier/core/marc';
import { compareMet, indexAll, meetingOf, readAll } from './all-names';

/** Thirty of one name, each with years of its own, and ten that are near nobody. */
const names = Array.from({ length: 40 }, (_, i) => {
  const text = i < 30 ? 'Reedman, Amos,' : `${'Quillan Hadleigh Furze Osmere'.slice(i - 30, i - 22)}x, Zeno,`;
  const use = headingsOf({ leader: '', fields: [field('100', '1 ', 'a', text, 'd', `${1700 + i}-`)] })[0]!;
  return [i + 1, 1, headingFrom(use), null];
});
const text = (some: readonly unknown[]) => JSON.stringify(some);

test.each([1, 7, 100, 1_000_000])('names meet each other once, %i at one go', (atMost) => {
  const read = [readAll(text(names.slice(0, 13))), readAll(text(names.slice(13)))];
  const indexed = indexAll(read);
  const kept = new Map(read.flatMap((r) => Object.entries(JSON.parse(r.kept) as Record<string, object>)));
  const met: string[] = [];
  let pieces = 0;
  for (let from = 0; from < 40;) {
    const piece = meetingOf({ ...indexed, from, to: 40 }, atMost);
    expect(piece.until).toBeGreaterThan(from);
    from = piece.until;
    pieces++;
    piece.headings.forEach((heading, i) => {
      for (const other of piece.others.subarray(piece.starts[i], piece.starts[i + 1]))
        met.push([heading, other].sort((a, b) => a - b).join());
    });
    // Their years differ: they meet, and are not alike.
    const who = JSON.parse(piece.who) as number[];
    expect(new Set(who)).toEqual(new Set([...piece.headings, ...piece.others]));
    const names = text(who.map((id) => kept.get(String(id))));
    expect(compareMet({ met: piece, names })).toEqual([]);
  }
  expect(new Set(met).size).toBe(met.length);
  expect(met.filter((m) => m.split(',').every((id) => Number(id) <= 30))).toHaveLength((30 * 29) / 2);
  expect(pieces > 1).toBe(atMost < 435);
});
