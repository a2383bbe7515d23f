import { briefOf } from '../access';
import type { LabelRoll } from '../barcodes';
import type { Delivery, Incoming, IncomingFields, SupplierSheet } from '../deliveries';
import type { KeptRecipe } from '../recipes';
import { describeKind, type Once } from './kind';

const NAME_ONCE: readonly Once[] = [{ columns: ['name'], anyCase: true }];

/** A file of records that arrived. */
export const delivery = describeKind<Delivery>()({
  kind: 'delivery',
  noun: ['delivery', 'deliveries'],
  label: (d) => d.name,
  table: 'deliveries',
  columns: { name: 'text', sha256: 'text' },
  compute: (d) => ({ name: d.name, sha256: d.sha256 }),
  parents: [],
  keepsRemoved: true,
});

/** What is decided about one record of a delivery. */
export const incoming = describeKind<Incoming>()({
  kind: 'incoming',
  noun: ['incoming record', 'incoming records'],
  label: (i) => `record ${i.seq} of its delivery`,
  table: 'incoming',
  columns: {
    delivery: 'integer',
    seq: 'integer',
    state: 'text',
    decision: 'text',
    record: 'integer',
    copies: 'integer',
    copy_problems: 'integer',
    note: 'text',
  },
  compute: (i) => ({
    delivery: i.delivery,
    seq: i.seq,
    state: i.state,
    decision: i.decision,
    record: i.record,
    copies: i.copies.length,
    copy_problems: i.copies.filter((c) => c.problems.length > 0).length,
    note: i.note,
  }),
  parents: [
    {
      kind: 'delivery',
      field: 'delivery',
      column: 'delivery',
      among: { column: 'state', is: 'accepted' },
      whenGone: 'stays',
    },
  ],
});

/** The fields of an incoming record, kept under the same id. */
export const fields = describeKind<IncomingFields>()({
  kind: 'fields',
  noun: ['incoming record', 'incoming records'],
  label: (f) => briefOf(f.marc).title,
  table: 'incoming_fields',
  columns: {
    title: 'text',
    author: 'text',
    isbn: 'text',
    year: 'text',
    errors: 'integer',
    warnings: 'integer',
    advice: 'integer',
    findings: 'text',
  },
  compute: ({ marc }, checker) => {
    const { title, author, isbn, year } = briefOf(marc);
    const findings = checker.check(marc);
    const count = (severity: string) => findings.filter((f) => f.severity === severity).length;
    return {
      ...{ title, author, isbn, year },
      errors: count('error'),
      warnings: count('warning'),
      advice: count('advice'),
      findings: JSON.stringify(findings),
    };
  },
  parents: [],
});

/** The saved settings for one supplier's deliveries. */
export const sheet = describeKind<SupplierSheet>()({
  kind: 'sheet',
  noun: ['supplier sheet', 'supplier sheets'],
  label: (s) => s.name,
  table: 'sheets',
  columns: { name: 'text' },
  compute: (s) => ({ name: s.name }),
  parents: [],
  once: NAME_ONCE,
});

/** A reserved run of barcode numbers. */
export const roll = describeKind<LabelRoll>()({
  kind: 'roll',
  noun: ['label roll', 'label rolls'],
  label: (r) => r.name,
  table: 'rolls',
  columns: { name: 'text' },
  compute: (r) => ({ name: r.name }),
  parents: [],
  once: NAME_ONCE,
});

/** A named list of clean-up steps. */
export const recipe = describeKind<KeptRecipe>()({
  kind: 'recipe',
  noun: ['recipe', 'recipes'],
  label: (r) => r.name,
  table: 'recipes',
  columns: { name: 'text' },
  compute: (r) => ({ name: r.name }),
  parents: [],
});
