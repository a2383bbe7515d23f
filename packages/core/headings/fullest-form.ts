/** The form that says most, of two as long the one that more records have: what is offered to be kept. At least one is given. */
export const fullestForm = <H extends { readonly text: string; readonly records: number }>(
  forms: readonly H[],
): H => forms.toSorted((a, b) => b.text.length - a.text.length || b.records - a.records)[0]!;
