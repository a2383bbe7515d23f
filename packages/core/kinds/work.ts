import type { Pile, Piled } from '../piles';
import type { ScanBatch, Settled, Stocktake } from '../stocktake';
import type { Telling, WithdrawalListValue } from '../withdrawals';
import type { SavedSearch } from '../find';
import { describeKind } from './kind';

/** A named, kept set of records or copies. */
export const pile = describeKind<Pile>()({
  kind: 'pile',
  noun: ['pile', 'piles'],
  label: (p) => p.name,
  table: 'piles',
  columns: { name: 'text' },
  compute: (p) => ({ name: p.name }),
  parents: [],
  keepsRemoved: true,
  once: [{ columns: ['name'], among: { column: 'gone', is: 0 }, anyCase: true }],
});

/** That one record or copy lies on a pile. */
export const piled = describeKind<Piled>()({
  kind: 'piled',
  noun: ['thing on a pile', 'things on piles'],
  label: (p) => `${p.kind} ${p.object} on pile ${p.pile}`,
  table: 'piled',
  columns: { pile: 'integer', kind: 'text', object: 'integer' },
  compute: (p) => ({ pile: p.pile, kind: p.kind, object: p.object }),
  parents: [{ kind: 'pile', field: 'pile', column: 'pile', whenGone: 'stays' }],
  once: [{ columns: ['pile', 'kind', 'object'] }],
});

/** Copies that are to be withdrawn. */
export const withdrawlist = describeKind<WithdrawalListValue>()({
  kind: 'withdrawlist',
  noun: ['withdrawal list', 'withdrawal lists'],
  label: (l) => l.name,
  table: 'withdrawal_lists',
  columns: { state: 'text', name: 'text' },
  compute: (l) => ({ state: l.state, name: l.name }),
  parents: [],
  once: [{ columns: ['name'], among: { column: 'state', is: 'open' }, anyCase: true }],
});

/** That the union catalogue was told what had gone or come back. */
export const telling = describeKind<Telling>()({
  kind: 'telling',
  noun: ['notice to the union catalogue', 'notices to the union catalogue'],
  label: (t) => t.at.slice(0, 10),
  table: 'tellings',
  columns: { at: 'text' },
  compute: (t) => ({ at: t.at }),
  parents: [],
});

/** A stocktake of a stretch of shelf. */
export const stocktake = describeKind<Stocktake>()({
  kind: 'stocktake',
  noun: ['stocktake', 'stocktakes'],
  label: (s) => s.name,
  table: 'stocktakes',
  columns: { state: 'text' },
  compute: (s) => ({ state: s.state }),
  parents: [],
});

/** Scans loaded together. */
export const scanbatch = describeKind<ScanBatch>()({
  kind: 'scanbatch',
  noun: ['scan file', 'scan files'],
  label: (b) => b.name,
  table: 'scan_batches',
  columns: { stocktake: 'integer' },
  compute: (b) => ({ stocktake: b.stocktake }),
  parents: [{ kind: 'stocktake', field: 'stocktake', column: 'stocktake', whenGone: 'holds' }],
});

/** A finding of a stocktake that was settled. */
export const settled = describeKind<Settled>()({
  kind: 'settled',
  noun: ['settled finding', 'settled findings'],
  label: (s) => `what was done about ${s.code}`,
  table: 'settled_findings',
  columns: { stocktake: 'integer', finding: 'text', code: 'text' },
  compute: (s) => ({ stocktake: s.stocktake, finding: s.finding, code: s.code }),
  parents: [{ kind: 'stocktake', field: 'stocktake', column: 'stocktake', whenGone: 'holds' }],
  once: [{ columns: ['stocktake', 'finding', 'code'] }],
});

/** A search that is kept under a name. */
export const savedsearch = describeKind<SavedSearch>()({
  kind: 'savedsearch',
  noun: ['saved search', 'saved searches'],
  label: (s) => s.name,
  table: 'saved_searches',
  columns: { owner: 'integer', name: 'text' },
  compute: ({ owner, name }) => ({ owner, name }),
  parents: [],
  once: [{ columns: ['owner', 'name'], anyCase: true }],
});
