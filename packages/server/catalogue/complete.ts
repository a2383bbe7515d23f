import type { CompletionRow } from '@osier/contract';
import type { UsedTerm } from '@osier/core/editing';
import {
  formText,
  headingGroup,
  headingIn,
  headingText,
  isEstablished,
  keptForm,
  seeFromKey,
  seeFroms,
} from '@osier/core/headings';
import { fold } from '@osier/core/text';
import { formsBeginning } from '../headings/queries';
import type { Services } from '../services';
import { termsBeginning } from '../projections/used-terms';

/** Offers at once. */
const MOST = 10;
/** Shorter than this, nearly everything would be meant. */
const LEAST = 2;

/** What is being typed, and where. */
export interface Completing {
  readonly from?: 'heading' | UsedTerm | undefined;
  readonly tag?: string | undefined;
  readonly ind2?: string | undefined;
  readonly source?: string | undefined;
  readonly q?: string | undefined;
}

/** What a subfield that is being typed may become. */
export async function complete(
  services: Services,
  { from = 'heading', tag = '100', ind2 = ' ', source, q = '' }: Completing,
): Promise<{ rows: CompletionRow[] }> {
  const typed = q.trim();
  if (typed.length < LEAST) return { rows: [] };
  if (from === 'heading') return { rows: await headingsTyped(services, tag, ind2, source, typed) };
  const terms = await termsBeginning(services.store, from, fold(typed), MOST);
  return {
    rows: terms.map(({ text, n }) => ({
      text,
      via: '',
      records: n,
      heading: 0,
      isEstablished: true,
      kept: null,
    })),
  };
}

async function headingsTyped(
  { store }: Services,
  tag: string,
  ind2: string,
  source: string | undefined,
  typed: string,
): Promise<CompletionRow[]> {
  // "Fen H" is "Fen, H" as headings have it.
  const forms = [typed, ...(typed.includes(',') ? [] : [typed.replace(/\s+/, ', ')])];
  const uses = forms.flatMap(
    (a) =>
      headingIn({
        tag,
        ind1: '1',
        ind2,
        subfields: [{ code: 'a', value: a }, ...(source ? [{ code: '2', value: source }] : [])],
      }) ?? [],
  );
  const rows = (
    await Promise.all(
      [...new Map(uses.map((u) => [u.key, u])).values()].map((u) =>
        formsBeginning(store, headingGroup(u), u.key, MOST),
      ),
    )
  ).flat();
  const first = [...new Map(rows.map((r) => [r.id, r])).values()].slice(0, MOST);
  const held = new Map(
    (
      await store.readMany(
        'heading',
        first.map((r) => r.id),
      )
    ).map((h) => [h.id, h.value]),
  );
  return first.flatMap(({ id, form, key, records }) => {
    const heading = held.get(id);
    if (!heading) return [];
    const other = form === key ? undefined : seeFroms(heading).find((f) => seeFromKey(f) === form);
    return [
      {
        text: headingText(heading),
        via: other ? formText(other) : '',
        records,
        heading: id,
        isEstablished: isEstablished(heading),
        kept: keptForm(heading),
      },
    ];
  });
}
