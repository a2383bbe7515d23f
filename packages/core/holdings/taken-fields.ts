import type { MarcRecord } from '../marc';

/** Fields of a record whose content stands in its holdings and copies (852, 876): they would go stale beside those. */
export const isTakenField = (tag: string): boolean => tag === '852' || tag === '876';

/** A record as it leaves the catalogue: without the fields that were taken into its holdings, if it has any. */
export const asExported = (record: MarcRecord, hasHoldings: boolean): MarcRecord =>
  hasHoldings && record.fields.some((f) => isTakenField(f.tag))
    ? { ...record, fields: record.fields.filter((f) => !isTakenField(f.tag)) }
    : record;
