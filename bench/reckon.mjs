// Reckons shelves of many copies in core, and prints what it took, in milliseconds: `copies scans whole one`. Run as a bundle.
import { schemeNamed, shelfKeyOf } from '@osier/core/callnumbers';
import { cleanCode, CodeSense, filedAs, ShelfCount } from '@osier/core/stocktake';
import { generatedShelf } from '@osier/core/testing';

const [size, tenth] = [Number(process.argv[2]), process.argv[3] === 'tenth'];
const shelf = generatedShelf(size, 3, tenth);
const homes = new Map(shelf.sections.map((s, i) => [s.location, i]));
// As they come to the server's thread: read from JSON.
const copies = JSON.parse(
  JSON.stringify(
    shelf.copies.map((c) => ({
      ...{ barcode: c.barcode, status: c.status, lastSeen: c.lastSeen, outside: 'location' },
      home: c.branch === 'HILL' ? (homes.get(c.location) ?? -1) : -1,
      call: shelfKeyOf(c.callNumber, schemeNamed(c.scheme) ?? 'own'),
      ...{ author: filedAs(c.author), title: filedAs(c.title) },
    })),
  ),
);
const codes = new CodeSense([{ length: 14, check: 'mod10', prefix: '31204' }]);
const rules = { seenSince: '2026-03-09', skipRunMin: 6, isExpected: (s) => s === 'available', codes };
const lines = shelf.lines.map(cleanCode);

let [whole, one, scans] = [Infinity, Infinity, 0];
for (let round = 0; round < 9; round++) {
  const began = performance.now();
  const count = new ShelfCount(
    copies,
    shelf.sections.map((s) => s.order),
    rules,
  );
  const walk = count.addWalk();
  scans = 0;
  shelf.sections.forEach((s, i) => {
    const section = count.addSection(walk, [i]);
    for (let line = s.first_line; line <= s.last_line; line++, scans++)
      count.add(section, lines[line - 1], line);
  });
  count.result();
  whole = Math.min(whole, performance.now() - began);
  const more = performance.now();
  for (let i = 0; i < 100; i++) count.add(0, lines[i], 0);
  one = Math.min(one, (performance.now() - more) / 100);
}
console.log(copies.length, scans, whole, one);
