import { briefOf } from '@osier/core/access';
import { groupedBarcode } from '@osier/core/barcodes';
import { callNumberText } from '@osier/core/callnumbers';
import type { Incoming, IncomingFields } from '@osier/core/deliveries';
import { headingText, type Heading } from '@osier/core/headings';
import type { Copy, Holding, Withdrawn } from '@osier/core/holdings';
import type { MarcRecord } from '@osier/core/marc';
import type { Piled } from '@osier/core/piles';

/** An object of a change as a person calls it. */
export function labelOf(kind: string, id: number, value: unknown): string {
  if (value === null) return `${kind} ${id}`;
  switch (kind) {
    case 'record':
      return briefOf(value as MarcRecord).title;
    case 'fields':
      return briefOf((value as IncomingFields).marc).title;
    case 'incoming':
      return `record ${(value as Incoming).seq} of its delivery`;
    case 'heading':
      return headingText(value as Heading);
    case 'copy':
      return groupedBarcode((value as Copy).barcode);
    case 'withdrawn':
      return groupedBarcode((value as Withdrawn).copy.barcode);
    case 'holding':
      return callNumberText(value as Holding);
    case 'piled':
      return `${(value as Piled).kind} ${(value as Piled).object} on pile ${(value as Piled).pile}`;
    default:
      return (value as { name?: string }).name ?? `${kind} ${id}`;
  }
}
