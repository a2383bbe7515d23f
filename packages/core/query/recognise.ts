import { readIsbn } from '../access';
import { isAddress, parseAddress } from '../address';

/** What the scan line took an input for. */
export type Recognition =
  | { readonly as: 'barcode'; readonly code: string }
  | { readonly as: 'isbn'; readonly code: string }
  | { readonly as: 'record'; readonly id: number }
  | { readonly as: 'heading'; readonly id: number }
  | { readonly as: 'call number'; readonly text: string }
  | { readonly as: 'field address'; readonly text: string }
  | { readonly as: 'words'; readonly text: string };

/** `isCopyCode` says whether digits have the house's barcode length. */
export function recogniseInput(raw: string, barcodeLength = 14): Recognition {
  const text = raw.trim();
  const code = text
    .replace(/[\s-]/g, '')
    .replace(/^[A-Da-d](?=\d{6,}[A-Da-d]?$)/, '')
    .replace(/(?<=^\d{6,})[A-Da-d]$/, '');
  const isbn = readIsbn(text);
  if (isbn?.isbn13 && isbn.rest === '') return { as: 'isbn', code: isbn.isbn13 };
  if (/^\d+$/.test(code) && code.length >= barcodeLength - 1 && code.length <= barcodeLength + 1)
    return { as: 'barcode', code };
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
