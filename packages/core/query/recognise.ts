import { readIsbn } from '../access';
import { isAddress, parseAddress } from '../address';
import { cleanScan, codeLength, fitsRule, scanForms, type BarcodeRule } from '../barcodes';

/** What the scan line took an input for. */
export type Recognition =
  | { readonly as: 'barcode'; readonly code: string }
  | { readonly as: 'isbn'; readonly code: string }
  | { readonly as: 'record'; readonly id: number }
  | { readonly as: 'heading'; readonly id: number }
  | { readonly as: 'call number'; readonly text: string }
  | { readonly as: 'field address'; readonly text: string }
  | { readonly as: 'words'; readonly text: string };

/** How a barcode is told from other numbers in a library that has set up no rule. */
const USUAL: readonly BarcodeRule[] = [{ of: 'copy', prefix: '', form: '9'.repeat(14), check: 'none' }];

/** The barcode that an input is by the rules of the library, or that it nearly is: digits with one too many or too few. */
function barcodeIn(text: string, rules: readonly BarcodeRule[]): string | null {
  const forms = scanForms(text);
  const exact = forms.find((code) => rules.some((r) => fitsRule(code, r)));
  if (exact !== undefined) return exact;
  const code = cleanScan(text);
  const near = rules.some(
    (r) => /^[9X]+$/.test(r.form) && /^\d*$/.test(r.prefix) && Math.abs(codeLength(r) - code.length) <= 1,
  );
  return near && /^\d{7,}$/.test(code) ? code : null;
}

/** What an input of the scan line is; `rules` are the library's for barcodes. */
export function recogniseInput(raw: string, rules: readonly BarcodeRule[] = []): Recognition {
  const text = raw.trim();
  const isbn = readIsbn(text);
  if (isbn?.isbn13 && isbn.rest === '') return { as: 'isbn', code: isbn.isbn13 };
  const code = barcodeIn(text, rules.length ? rules : USUAL);
  if (code !== null) return { as: 'barcode', code };
  const numbered = /^(record|r|heading|h)\s*(?:no\.?\s*)?#?(\d{1,9})$/i.exec(text);
  if (numbered) {
    const id = Number(numbered[2]);
    return numbered[1]!.toLowerCase().startsWith('r') ? { as: 'record', id } : { as: 'heading', id };
  }
  if (/^([0-9.]{3}|LDR)[$/{^[]/.test(text) && isAddress(parseAddress(text)))
    return { as: 'field address', text };
  if (
    /^\d{3}(\.\d+)?(\s+[A-Z]{1,4}\d*[a-z]?)?$/.test(text) ||
    /^[A-Z]{1,3}\d{1,4}(\.\d+)?(\s*\.?[A-Z]\d+.*)?$/.test(text)
  )
    return { as: 'call number', text };
  return { as: 'words', text };
}
