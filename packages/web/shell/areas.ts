import type { Today } from '@osier/contract';

/** The areas in the order of the day, with the number that waits in each. */
export const AREAS: readonly { path: string; name: string; glyph: string; waits?: (t: Today) => number }[] = [
  { path: '/today', name: 'Today', glyph: '☼' },
  {
    path: '/deliveries',
    name: 'Deliveries',
    glyph: '⇣',
    waits: (t) => t.deliveries.reduce((n, d) => n + d.waiting, 0),
  },
  { path: '/catalogue', name: 'Catalogue', glyph: '≣' },
  { path: '/headings', name: 'Headings', glyph: '≈', waits: (t) => t.lookAlikes },
  { path: '/copies', name: 'Copies', glyph: '▤' },
  { path: '/withdrawals', name: 'Withdrawals', glyph: '⇡', waits: (t) => t.withdrawalLists.length },
  { path: '/stocktake', name: 'Stocktake', glyph: '▥', waits: (t) => t.stocktakes.length },
  { path: '/daybook', name: 'Daybook', glyph: '✎' },
  { path: '/set-up', name: 'Set-up', glyph: '⚒' },
];
