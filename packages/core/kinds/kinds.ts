import type { ChangeOf, Versioned } from '../changes';
import { apart, lead } from './duplicates';
import { delivery, fields, incoming, recipe, roll, sheet } from './delivery';
import { distinct, heading } from './heading';
import { copy, holding, withdrawn } from './holding';
import type { ColumnValue, KindDescriptor, Parent } from './kind';
import { record, suppressed } from './record';
import { labelsheet } from './label-sheet';
import { localfield } from './local-field';
import { neighbour } from './neighbour';
import { starter } from './starter';
import { house, lists } from './setting';
import { pile, piled, savedsearch, scanbatch, settled, stocktake, telling, withdrawlist } from './work';

/** Every kind of object, parents before what hangs on them: rows are written in this order. */
const ALL = {
  record,
  suppressed,
  lead,
  apart,
  heading,
  distinct,
  holding,
  copy,
  withdrawn,
  delivery,
  incoming,
  fields,
  withdrawlist,
  telling,
  stocktake,
  scanbatch,
  settled,
  recipe,
  starter,
  localfield,
  labelsheet,
  neighbour,
  sheet,
  roll,
  pile,
  piled,
  savedsearch,
  house,
  lists,
};

/** The name of a kind. */
export type Kind = keyof typeof ALL;

/** What an object of a kind is. */
export type KindValue<K extends Kind> = Parameters<(typeof ALL)[K]['label']>[0];

/** The columns of a kind's table that are looked for. */
export type KindColumns<K extends Kind> =
  (typeof ALL)[K] extends KindDescriptor<string, never, infer C, infer I>
    ? { readonly [N in C | I]: ColumnValue } & { readonly id: number }
    : never;

/** The descriptors by kind. */
export const KINDS: { readonly [K in Kind]: KindDescriptor<K, KindValue<K>> } = ALL;

/** Whether a word is the name of a kind. */
export const isKind = (name: string): name is Kind => Object.hasOwn(ALL, name);
/** The names of all kinds, parents before what hangs on them. */
export const KIND_NAMES: readonly Kind[] = Object.keys(ALL).filter(isKind);

/** A change of one object; what it was and becomes is a value of its kind. */
export type Change<K extends Kind = Kind> = { readonly [k in K]: ChangeOf<k, KindValue<k>> }[K];

/** What one act does to the catalogue, as a value that can be shown, committed, stored and inverted. */
export type ChangeSet = readonly Change[];

/** An object of a kind as it stands in the store. */
export type StoredObject<K extends Kind> = Versioned<KindValue<K>, K>;

/** What a person calls an object; its kind and number where there is no value to tell more. */
export function labelOf<K extends Kind>(kind: K, id: number, value: KindValue<K> | null): string {
  const { label, noun } = KINDS[kind];
  return value === null ? `${noun[0]} ${id}` : label(value, id);
}

/** The same for an object whose kind is only known as a word, as conflicts have it. */
export function labelOfAny(kind: string, id: number, value: unknown): string {
  return isKind(kind) && isValueOf(kind, value) ? labelOf(kind, id, value) : `${kind} ${id}`;
}

/** Objects are told apart by their kind alone; what has one is a value of it. */
const isValueOf = <K extends Kind>(_kind: K, value: unknown): value is KindValue<K> | null =>
  typeof value === 'object';

/** One or several of a kind, as a sentence says it; the word itself where it is no kind. */
export const nounOf = (kind: string, many = false): string =>
  isKind(kind) ? KINDS[kind].noun[many ? 1 : 0] : kind;

/** What may hang on objects of a kind: the child's kind, and how it names its parent. */
export const childrenOf = (kind: Kind): readonly { readonly child: Kind; readonly parent: Parent<never> }[] =>
  KIND_NAMES.flatMap((child) =>
    KINDS[child].parents.filter((p) => p.kind === kind).map((parent) => ({ child, parent })),
  );
