import { compareGroups, lossOf } from '.';

test.each([
  [
    { stood: 75, missing: 25 },
    { looked: 100, missing: 25, rate: 25 },
  ],
  [
    { stood: 2, missing: 1, skipped: 90 },
    { looked: 3, missing: 1, rate: 33.33 },
  ],
  [
    { skipped: 12, 'on loan': 3 },
    { looked: 0, missing: 0, rate: 0 },
  ],
])('of %j the loss is %j', (outcomes, loss) => expect(lossOf(outcomes)).toEqual(loss));

test('two stocktakes are compared by name; what one of them lacks is told as lacking, not as nought', () => {
  const compared = compareGroups(
    [
      { name: '746', outcomes: { stood: 9, missing: 1 } },
      { name: '750', outcomes: { stood: 5 } },
    ],
    [
      { name: '623', outcomes: { stood: 4 } },
      { name: '746', outcomes: { stood: 8, missing: 2 } },
    ],
  );
  expect(compared.map((g) => [g.name, g.now?.rate ?? null, g.then?.rate ?? null])).toEqual([
    ['746', 10, 20],
    ['750', 0, null],
    ['623', null, 0],
  ]);
});
