import { checkCharacter, type CheckRule } from './check-character';

/** What a library's barcodes look like: literally `prefix`, then a character for each letter of `form`. */
export interface BarcodeRule {
  /** On what they are stuck: copies, or readers’ cards. */
  readonly of: 'copy' | 'reader';
  readonly prefix: string;
  /** A letter for each character: `A` a letter, `9` a digit, `X` either. The check character is the last of them. */
  readonly form: string;
  readonly check: CheckRule;
}

/** The longest code that a rule may describe. */
const LONGEST = 40;
const KINDS: Readonly<Record<string, RegExp>> = { A: /[A-Z]/i, '9': /[0-9]/, X: /[A-Z0-9]/i };

/** How many characters the codes of a rule have. */
export const codeLength = ({ prefix, form }: BarcodeRule): number => prefix.length + form.length;

/** Whether a code has the letters and digits that a rule wants, whatever its check character. */
function hasForm(code: string, rule: BarcodeRule): boolean {
  const { prefix, form, check } = rule;
  if (code.length !== codeLength(rule) || code.slice(0, prefix.length).toUpperCase() !== prefix.toUpperCase())
    return false;
  return [...form].every((kind, i) => {
    const char = code[prefix.length + i] ?? '';
    // The check characters of these two are of more kinds than the code itself.
    if (i === form.length - 1 && check === 'mod11' && /x/i.test(char)) return true;
    if (i === form.length - 1 && check === 'mod43') return /[0-9A-Z\-. $/+%]/i.test(char);
    return KINDS[kind]?.test(char) ?? false;
  });
}

/** The check character that a code should have; null when its rule has none. */
const wanted = (code: string, { check }: BarcodeRule): string | null =>
  checkCharacter(check, code.slice(0, -1).toUpperCase());

/** Whether a code is one of a rule. */
export const fitsRule = (code: string, rule: BarcodeRule): boolean =>
  hasForm(code, rule) && (rule.check === 'none' || wanted(code, rule) === code.at(-1)?.toUpperCase());

/** Whether a code is one of a copy by a library’s rules; every one is where there are no rules. */
export function isCopyCode(code: string, rules: readonly BarcodeRule[]): boolean {
  const ofCopies = rules.filter((r) => r.of === 'copy');
  return ofCopies.length === 0 ? code !== '' : ofCopies.some((r) => fitsRule(code, r));
}

const isDigits = ({ prefix, form }: BarcodeRule): boolean => /^\d*$/.test(prefix) && /^9*$/.test(form);

/** A book’s number, which a scanner reads off the cover as well (EAN-13 of 978 or 979). */
const isBookNumber = (code: string): boolean =>
  /^97[89]\d{10}$/.test(code) && checkCharacter('ean', code.slice(0, 12)) === code[12];

/** Characters that no printed code has. */

const UNPRINTED = /[\u0000-\u001f\u007f-\u009f]/;

/** What is wrong with a copy’s barcode by the rules of the library, as a sentence; null when nothing is. Without a rule anything is right. */
export function barcodeProblem(code: string, rules: readonly BarcodeRule[]): string | null {
  if (code === '') return 'No barcode was given.';
  if (UNPRINTED.test(code)) return 'A barcode has no control characters.';
  if (code.length > LONGEST)
    return `A barcode has at most ${LONGEST} characters; this one has ${code.length}.`;
  const ofCopies = rules.filter((r) => r.of === 'copy');
  if (ofCopies.some((r) => fitsRule(code, r))) return null;
  const misread = ofCopies.find((r) => hasForm(code, r));
  if (!misread && rules.some((r) => r.of === 'reader' && hasForm(code, r)))
    return 'This is a reader’s card, not a copy.';
  if (isBookNumber(code)) return 'This is the ISBN on the cover, not the barcode of the copy.';
  if (ofCopies.length === 0) return null;
  if (misread)
    return `The check ${misread.check === 'mod43' ? 'character' : 'digit'} is wrong: ${code.at(-1)}, it should be ${wanted(code, misread) ?? ''}.`;
  const lengths = [...new Set(ofCopies.map(codeLength))].sort((a, b) => a - b);
  if (!lengths.includes(code.length))
    return `A barcode here has ${lengths.join(' or ')} ${ofCopies.every(isDigits) ? 'digits' : 'characters'}; this one has ${code.length}.`;
  const shown = ofCopies.filter((r) => codeLength(r) === code.length).map(ruleText);
  return `A barcode here is ${shown.join(', or ')}; this one is not.`;
}

const COUNTED: Readonly<Record<string, readonly [string, string]>> = {
  A: ['letter', 'letters'],
  '9': ['digit', 'digits'],
  X: ['letter or digit', 'letters or digits'],
};

/** What the codes of a rule look like: "31204 and 9 digits", "4 letters and 4 digits". */
export function ruleText({ prefix, form }: BarcodeRule): string {
  const runs = form.match(/A+|9+|X+/g) ?? [];
  const said = runs.map((run) => `${run.length} ${(COUNTED[run[0]!] ?? ['', ''])[run.length === 1 ? 0 : 1]}`);
  return [...(prefix ? [prefix] : []), ...said].join(' and ');
}

/** What is wrong with a rule, beside its field. */
export function ruleProblems(rule: BarcodeRule): { field: keyof BarcodeRule; message: string }[] {
  const { prefix, form, check } = rule;
  const problems: { field: keyof BarcodeRule; message: string }[] = [];
  if (!/^[!-~]*$/.test(prefix))
    problems.push({ field: 'prefix', message: 'What every code begins with has no blanks.' });
  if (!/^[A9X]+$/.test(form))
    problems.push({
      field: 'form',
      message:
        'Write A for a letter, 9 for a digit, X for either: AAAA9999 for four letters and four digits.',
    });
  if (codeLength(rule) > LONGEST)
    problems.push({ field: 'form', message: `A barcode has at most ${LONGEST} characters.` });
  if (check !== 'none' && problems.length === 0) {
    const body = prefix + form.slice(0, -1).replace(/[AX]/g, 'A');
    if (checkCharacter(check, body.toUpperCase()) === null)
      problems.push({
        field: 'check',
        message:
          check === 'mod43'
            ? 'Modulo 43 wants letters, digits and the marks of Code 39.'
            : 'This check digit is reckoned from digits alone.',
      });
    else if (form.endsWith('A'))
      problems.push({
        field: 'check',
        message: 'The last place is the check character: write 9 or X there.',
      });
  }
  return problems;
}

/** How many of some barcodes fit a library’s rules for copies, and the first that do not, each with why. */
export function triedOn(
  rules: readonly BarcodeRule[],
  codes: Iterable<string>,
  atMost = 10,
): { fit: number; of: number; not: readonly { readonly code: string; readonly why: string }[] } {
  let [fit, of] = [0, 0];
  const not: { code: string; why: string }[] = [];
  for (const code of codes) {
    of += 1;
    const why = barcodeProblem(code, rules);
    if (why === null) fit += 1;
    else if (not.length < atMost) not.push({ code, why });
  }
  return { fit, of, not };
}
