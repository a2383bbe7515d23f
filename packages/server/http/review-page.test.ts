import fc from 'fast-check';
import { PAGE_ROWS, reviewPage } from './review-page';

function pageOf(kinds: readonly boolean[], from: number) {
  const page = reviewPage<number>(from);
  kinds.forEach((isException, id) => page.offer(isException, () => id));
  return page.take();
}

test('page after page, every row comes once, exceptions before the rest', () => {
  const many = fc.array(fc.boolean(), { minLength: 0, maxLength: 3 * PAGE_ROWS });
  fc.assert(
    fc.property(many, (kinds) => {
      const wanted = [
        ...kinds.flatMap((k, id) => (k ? [id] : [])),
        ...kinds.flatMap((k, id) => (k ? [] : [id])),
      ];
      const seen: number[] = [];
      for (;;) {
        const { rows, more } = pageOf(kinds, seen.length);
        seen.push(...rows);
        expect(more).toBe(kinds.length - seen.length);
        if (more === 0) break;
        expect(rows).toHaveLength(PAGE_ROWS);
      }
      expect(seen).toEqual(wanted);
    }),
    { numRuns: 60 },
  );
});

test('rows that cannot be on the page are not made', () => {
  let made = 0;
  const page = reviewPage<number>(0);
  for (let id = 0; id < 5 * PAGE_ROWS; id++)
    page.offer(false, () => {
      made++;
      return id;
    });
  expect(made).toBe(PAGE_ROWS);
  expect(page.take()).toMatchObject({ more: 4 * PAGE_ROWS });
});
