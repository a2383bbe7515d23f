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

/** What becomes of the characters below U+0080: a blank, the character itself, or nothing. */
const [BLANK, ITSELF, NOTHING] = [0, 1, 2];
/** Which of these characters stay as they are, and which ones leave nothing behind; all others are blanks. */
export const asciiClasses = (themselves: string, nothing: string): Uint8Array => {
  const classes = new Uint8Array(0x80).fill(BLANK);
  for (const c of themselves) classes[c.charCodeAt(0)] = ITSELF;
  for (const c of nothing) classes[c.charCodeAt(0)] = NOTHING;
  return classes;
};

/** A text of characters below U+0080 in words with one blank between them; null for any other. Regular expressions take several times as long. */
export function asciiWords(text: string, classes: Uint8Array): string | null {
  let words = '';
  let from = -1;
  let isApart = false;
  for (let i = 0; i <= text.length; i++) {
    const code = i < text.length ? text.charCodeAt(i) : 0x20;
    if (code > 0x7f) return null;
    const kind = classes[code];
    if (kind === ITSELF) {
      if (from < 0) from = i;
      continue;
    }
    if (from >= 0) {
      words += (isApart && words !== '' ? ' ' : '') + text.slice(from, i);
      from = -1;
      isApart = false;
    }
    if (kind === BLANK) isApart = true;
  }
  return words;
}

const FOLDED = asciiClasses('abcdefghijklmnopqrstuvwxyz0123456789', "'");

/** The form in which two texts are the same to a searcher: no marks, lower case, single spaces, no punctuation. */
export function fold(text: string): string {
  const lower = text.toLowerCase();
  const words = asciiWords(lower, FOLDED);
  if (words !== null) return words;
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
