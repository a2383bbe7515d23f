import type { DataField } from './record';

const isText = (code: string) => code >= 'a' && code <= 'z';

/**
 * A heading with its subdivisions as the trade writes it, with dashes: “Basket making — Netherlode — History”. Subdivisions are
 * $v, $x, $y and $z (MARC 21, 6XX; authority 1XX, 4XX and 5XX). Linking and control subfields are left out.
 */
export function subjectString({ subfields }: DataField): string {
  let text = '';
  for (const { code, value } of subfields) {
    if (!isText(code) || code === 'w' || code === 'u' || value === '') continue;
    text += text === '' ? value : 'vxyz'.includes(code) ? ` — ${value}` : ` ${value}`;
  }
  return text;
}
