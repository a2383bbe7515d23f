import type { Finding } from '@osier/core/checks';

/** A part of a text, with the finding that concerns it. */
export interface TextStretch {
  readonly part: string;
  readonly finding: Finding | null;
}

/**
 * Cuts a text where its findings begin and end, in the order of the text. A finding without a range concerns the whole;
 * one that overlaps an earlier one, or lies outside the text, is left to the margin.
 */
export function stretches(text: string, findings: readonly Finding[]): TextStretch[] {
  const ranges = findings
    .map((finding) => ({ finding, start: finding.where.start ?? 0, end: finding.where.end ?? text.length }))
    .filter((r) => r.start >= 0 && r.end <= text.length && r.start < r.end)
    .sort((a, b) => a.start - b.start || a.end - b.end);
  const parts: TextStretch[] = [];
  let at = 0;
  for (const { finding, start, end } of ranges) {
    if (start < at) continue;
    if (start > at) parts.push({ part: text.slice(at, start), finding: null });
    parts.push({ part: text.slice(start, end), finding });
    at = end;
  }
  if (at < text.length) parts.push({ part: text.slice(at), finding: null });
  return parts;
}
