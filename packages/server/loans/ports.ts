/** What Osier needs of the lending system. */
export interface LoansDesk {
  /**
   * Due dates (ISO) of these barcodes, '' for those not on loan; null when the desk cannot be asked, so that nobody
   * takes silence for "not on loan".
   */
  dueDates(barcodes: readonly string[]): Promise<ReadonlyMap<string, string> | null>;
  /** Takes a copy back; false when the desk refused or did not answer. */
  takeReturn(barcode: string): Promise<boolean>;
  readonly configured: boolean;
  close(): void;
}

/** A library without a lending system: nothing is on loan as far as Osier knows. */
export const noLoansDesk: LoansDesk = {
  dueDates: (barcodes) => Promise.resolve(new Map(barcodes.map((b) => [b, '']))),
  takeReturn: () => Promise.resolve(false),
  configured: false,
  close: () => undefined,
};
