/** An ampersand that begins no reference of XML, a less-than sign that begins no element of a record. */
const STRAY_AMPERSAND = /&(?!(?:#\d+|#[xX][\da-fA-F]+|amp|lt|gt|quot|apos);)/g;
const STRAY_LESS_THAN =
  /<(?!\/?(?:[\w.-]+:)?(?:record|leader|controlfield|datafield|subfield)(?=[\s>/])|!\[CDATA\[|!--|\?)/g;
/** What XML 1.0 has not, and references to it. */
const NO_XML = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;
const NO_XML_REFERENCE = /&#(?:0*(?:[0-8]|1[124-9]|2\d|3[01])|[xX]0*(?:[0-8bBcCeEfF]|1[\da-fA-F]));/g;

/** The text of a record element with what is no XML in it written so that it is text, or as a blank. */
export const withoutXmlStrays = (text: string): string =>
  text
    .replace(STRAY_AMPERSAND, '&amp;')
    .replace(STRAY_LESS_THAN, '&lt;')
    .replace(NO_XML, ' ')
    .replace(NO_XML_REFERENCE, ' ');
/** Whether a text has characters that XML 1.0 does not allow. */
export const hasStrays = (text: string): boolean => withoutXmlStrays(text) !== text;
