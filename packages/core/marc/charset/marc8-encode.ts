import { ANSEL, ASCII, marc8Set } from './marc8-tables';

let table: Map<string, { byte: number; combining: boolean }> | undefined;

function ansel(): Map<string, { byte: number; combining: boolean }> {
  if (table) return table;
  table = new Map();
  for (const [final, high] of [
    [ANSEL, 0x80],
    [ASCII, 0],
  ] as const) {
    const set = marc8Set(final)!;
    for (const [code, char] of set.toUnicode)
      table.set(char, { byte: code | high, combining: set.combining.has(code) });
  }
  return table;
}

/**
 * Encodes text as MARC-8 with ASCII and ANSEL, marks before their base; what these lack is written as `&#xXXXX;`,
 * the published lossless way (MARC 21 Specifications: Character Sets, part 4).
 */
export function encodeMarc8(text: string): Uint8Array {
  const out: number[] = [];
  for (const cluster of text.normalize('NFD').match(/\P{M}\p{M}*|\p{M}+/gu) ?? []) {
    const [base, ...marks] = [...cluster] as [string, ...string[]];
    const known = ansel();
    const whole = known.get(cluster.normalize('NFC'));
    if (whole && !whole.combining) {
      out.push(whole.byte);
    } else if ([base, ...marks].every((c) => known.has(c))) {
      for (const mark of marks) out.push(known.get(mark)!.byte);
      out.push(known.get(base)!.byte);
    } else {
      for (const c of cluster.normalize('NFC')) {
        const direct = known.get(c);
        if (direct && !direct.combining) out.push(direct.byte);
        else
          for (const d of `&#x${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')};`)
            out.push(d.charCodeAt(0));
      }
    }
  }
  return Uint8Array.from(out);
}
