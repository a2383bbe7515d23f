import { recogniseFormat } from '@osier/core/marc';

/** What a file that is no text is, as a sentence; null for text. */
export function foreignFile(bytes: Buffer): string | null {
  const isMarked = (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff);
  if (isMarked) return null;
  const seen = recogniseFormat(bytes.subarray(0, 8192));
  if ('problem' in seen)
    return /^This is /.test(seen.problem) ? `${seen.problem.split(/[.,] /)[0] ?? ''}.` : null;
  return seen.format === 'csv' ? null : 'This is a file of MARC records. Load it in Deliveries.';
}
