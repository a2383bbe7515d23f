export interface Shelf {
  readonly name: string;
  readonly copies: readonly { barcode: string; callNumber: string; title: string }[];
}
