import { isControl, type Field } from './record';

/** A language whose characters are drawn its own way (BCP 47). */
export type EastAsian = 'zh' | 'ja' | 'ko';

const HAN =
  /[\u2e80-\u2fdf\u3000-\u303f\u31c0-\u31ef\u3400-\u4dbf\u4e00-\u9fff\uf900-\ufaff\uff00-\uffef\u{20000}-\u{3ffff}]/u;
const KANA = /[\u3040-\u30ff\u31f0-\u31ff]/;
const HANGUL = /[\u1100-\u11ff\u3130-\u318f\ua960-\ua97f\uac00-\ud7ff]/;
const BY_CODE: Readonly<Record<string, EastAsian>> = { chi: 'zh', zho: 'zh', jpn: 'ja', kor: 'ko' };
/** Scripts of $6 that say a language (MARC 21, appendix A: control subfield 6, with codes of ISO 15924). */
const BY_SCRIPT: Readonly<Record<string, EastAsian>> = {
  Jpan: 'ja',
  Hira: 'ja',
  Kana: 'ja',
  Hang: 'ko',
  Kore: 'ko',
  Hans: 'zh',
  Hant: 'zh',
};

/**
 * The language in whose manner a field with Chinese, Japanese or Korean characters is drawn: by its kana or hangul, else by the script that
 * its $6 names, else by the language of the record (008/35-37), else Chinese. Undefined for a field without such characters.
 */
export function eastAsianOf(field: Field, language: string): EastAsian | undefined {
  if (isControl(field)) return undefined;
  const text = field.subfields.map((s) => (s.code === '6' ? '' : s.value)).join(' ');
  if (KANA.test(text)) return 'ja';
  if (HANGUL.test(text)) return 'ko';
  if (!HAN.test(text)) return undefined;
  const script = /\/([A-Z][a-z]{3})/.exec(field.subfields.find((s) => s.code === '6')?.value ?? '')?.[1];
  return (script && BY_SCRIPT[script]) || BY_CODE[language] || 'zh';
}
