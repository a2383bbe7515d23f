/** Beginnings of the passwords that are tried first wherever lists of them were published; common practice, no source. */
const WORDS =
  'password passwort motdepasse contrasena qwerty qwertz azerty letmein welcome iloveyou admin administrator changeme secret monkey dragon football baseball sunshine princess superman batman trustno master login abc library librarian catalogue osier starwars whatever freedom computer internet samsung google'.split(
    ' ',
  );

/**
 * Whether a password is one of the first that are tried: a common word (twice, or with letters exchanged for digits) and nothing
 * but digits and marks beside it, one character or a short run over and over, a run along the keyboard or the alphabet.
 */
export function isCommon(password: string | undefined): boolean {
  if (!password) return false;
  const plain = password.normalize('NFKC').toLowerCase();
  if (new Set(plain).size <= 4 || /^(.{1,4})\1+.{0,3}$/su.test(plain)) return true;
  if (RUNS.some((run) => run.includes(plain.slice(0, 9)))) return true;
  const letters = plain
    .replace(/[@4]/g, 'a')
    .replace(/[013579$!]/g, (c) => SWAPPED[c] ?? c)
    .replace(/[^a-z]/g, '');
  const bare = plain.replace(/[^a-z]/g, '');
  return [letters, bare].some((text) => text !== '' && onlyWords(text));
}
const SWAPPED: Readonly<Record<string, string>> = {
  0: 'o',
  1: 'i',
  3: 'e',
  5: 's',
  7: 't',
  9: 'g',
  $: 's',
  '!': 'i',
};
const ROWS = [
  '1234567890',
  'qwertyuiop',
  'asdfghjkl',
  'zxcvbnm',
  'abcdefghijklmnopqrstuvwxyz',
  '1q2w3e4r5t6y7u8i9o0p',
  '1qaz2wsx3edc4rfv5tgb6yhn',
];
const RUNS = [...ROWS, ROWS.slice(1, 4).join('')].flatMap((r) => {
  const round = r.repeat(4);
  return [round, [...round].reverse().join('')];
});

/** Whether a text is nothing but common words, one behind another, with up to three letters more. */
function onlyWords(text: string): boolean {
  let rest = text;
  for (let found: string | undefined; (found = WORDS.find((w) => rest.startsWith(w)));)
    rest = rest.slice(found.length);
  return rest.length <= 3 && rest !== text;
}
