import { groupedBarcode } from '@osier/core/barcodes';

/** A barcode in groups. */
export const Barcode = ({ code }: { code: string }) => (
  <span className="mono" style={{ whiteSpace: 'nowrap' }}>
    {groupedBarcode(code)}
  </span>
);
