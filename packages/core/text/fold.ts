/** Letters that Unicode does not decompose, written the way catalogues file them (NACO comparison rules, 2.b). */
const SPECIAL: Record<string, string> = {
  æ: 'ae',
  Æ: 'AE',
  œ: 'oe',
  Œ: 'OE',
  ø: 'o',
  Ø: 'O',
  đ: 'd',
  Đ: 'D',
  ð: 'd',
  Ð: 'D',
  þ: 'th',
  Þ: 'TH',
  ł: 'l',
  Ł: 'L',
  ı: 'i',
  ß: 'ss',
  ơ: 'o',
  Ơ: 'O',
  ư: 'u',
  Ư: 'U',
  ħ: 'h',
  Ħ: 'H',
};
const SPECIAL_PATTERN = new RegExp(`[${Object.keys(SPECIAL).join('')}]`, 'g');

/** Text without diacritics: base letters only, case kept. */
export function withoutMarks(text: string): string {
  if (isAscii(text)) return text;
  return text
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .replace(SPECIAL_PATTERN, (letter) => SPECIAL[letter] ?? letter);
}

/** The form in which two texts are the same to a searcher: no marks, lower case, single spaces, no punctuation. */
export function fold(text: string): string {
  return withoutMarks(text)
    .toLowerCase()
    .replace(/['’ʹʻʼ]/g, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
}

/** The words of a text, folded. */
export function foldedWords(text: string): string[] {
  const folded = fold(text);
  return folded === '' ? [] : folded.split(' ');
}

/** Whether every character is below U+0080. */
export function isAscii(text: string): boolean {
  for (let i = 0; i < text.length; i++) if (text.charCodeAt(i) > 0x7f) return false;
  return true;
}
