import { quoted } from '@osier/core/acts';
import {
  alikeAmong,
  alikeBuckets,
  comparedHeading,
  headingText,
  type ComparedHeading,
} from '@osier/core/headings';
import type { Change } from '@osier/core/kinds';
import { wrong } from '../http/problem';
import { establishedNear } from '../projections/alike-names';
import { keptJson } from '../store/kept-json';
import type { Store } from '../store/store';

/** Headings that are named in one sentence. */
const NAMED = 3;

/** Of headings that would be made: the established ones that each of them looks like, as a sentence. */
async function nearEstablished(store: Store, made: readonly Change<'heading'>[]): Promise<string[]> {
  const sentences: string[] = [];
  for (const { after } of made) {
    // A number that no heading has: it is not there yet.
    const own = after && comparedHeading({ id: 0, heading: after });
    if (!own) continue;
    const there = (await establishedNear(store, alikeBuckets(own))).map((name) =>
      keptJson<ComparedHeading>(name),
    );
    const near = alikeAmong(own, there).slice(0, NAMED);
    if (near.length === 0) continue;
    const held = await store.readMany(
      'heading',
      near.map((p) => p.b),
    );
    const names = held.map((h) => `${quoted(headingText(h.value))} (heading ${h.id})`).join(', ');
    sentences.push(
      `${quoted(headingText(after))} is a new heading, and looks like the established ${names}.`,
    );
  }
  return sentences;
}

/** A heading that looks like an established one is made only when the person says so: it may be a typing error. */
export async function nearAllowed(
  store: Store,
  made: readonly Change<'heading'>[],
  isAllowed: boolean,
): Promise<void> {
  if (isAllowed || made.length === 0) return;
  const near = await nearEstablished(store, made);
  if (near.length) throw wrong('withErrors', near.join(' '));
}
