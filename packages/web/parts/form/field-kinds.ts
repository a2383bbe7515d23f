/** A code of one of the library's lists. */
export interface CodeOption {
  readonly code: string;
  readonly name: string;
}

/** How a field is filled in. */
export type FieldKind =
  | { readonly kind?: 'text'; readonly placeholder?: string; readonly isMono?: boolean }
  /** Any text; some are offered. */
  | { readonly kind: 'offered'; readonly offers: readonly string[]; readonly placeholder?: string }
  | { readonly kind: 'password' }
  | { readonly kind: 'number'; readonly min?: number; readonly max?: number; readonly unit?: string }
  | {
      readonly kind: 'choice';
      readonly options: readonly { readonly value: string; readonly label: string }[];
    }
  | { readonly kind: 'code'; readonly list: readonly CodeOption[]; readonly placeholder?: string }
  | { readonly kind: 'codes'; readonly list: readonly CodeOption[]; readonly placeholder?: string }
  | { readonly kind: 'tags'; readonly placeholder?: string }
  | { readonly kind: 'date' }
  /** Text of several lines, set in mono. */
  | { readonly kind: 'lines'; readonly rows: number }
  /** What a copy cost, in hundredths; null for none. `currency` is the part of the form that keeps its currency. */
  | { readonly kind: 'price'; readonly currency: string }
  | { readonly kind: 'flag' };

/** A field of a form: the name of its part of the schema, how it is called, and how it is filled in. */
export type FormField = FieldKind & {
  readonly name: string;
  readonly label: string;
  /** What the label does not say. */
  readonly help?: string;
  /** As wide as what goes in it: a number or code, a name (as it is when nothing is said), or a line of the form. */
  readonly width?: 'short' | 'wide';
};
