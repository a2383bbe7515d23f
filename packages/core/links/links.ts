import { isData, type MarcRecord } from '../marc';

/** What became of trying an address, the gravest first. */
export const LINK_RESULTS = [
  'gone',
  'unreachable',
  'faulty',
  'looping',
  'slow',
  'not secure',
  'own network',
  'moved',
  'needs sign-in',
  'fine',
] as const;
export type LinkResult = (typeof LINK_RESULTS)[number];

/** What trying an address found. */
export interface LinkCheck {
  readonly result: LinkResult;
  /** The HTTP status of the last answer; null when there was none. */
  readonly status: number | null;
  /** The address where one ends for good; '' where that is the same one. */
  readonly movedTo: string;
}

/** An address of a record that can be tried. */
export interface WebLink {
  /** Number of its field. */
  readonly field: number;
  /** As WHATWG URL writes it. */
  readonly url: string;
  /** As the record has it. */
  readonly written: string;
  /** What the link is called: 856 $y, else $3, else $z; '' for none. */
  readonly text: string;
}

/** The longest address that is tried, in characters. */
const LONGEST = 2000;

/** An address over http or https in the form in which it is asked for; null for anything else. */
function webAddress(text: string): string | null {
  if (text.length > LONGEST || !URL.canParse(text.trim())) return null;
  const url = new URL(text.trim());
  // Names and passwords in an address are not sent to anybody.
  if (!/^https?:$/.test(url.protocol) || url.username || url.password) return null;
  url.hash = '';
  return url.href;
}

/** The web addresses of a record (MARC 21, 856 $u), each once; others (ftp, mail, handles) cannot be tried. */
export function linksOf(record: MarcRecord): WebLink[] {
  const links = new Map<string, WebLink>();
  record.fields.forEach((f, field) => {
    if (f.tag !== '856' || !isData(f)) return;
    const text =
      ['y', '3', 'z'].flatMap((code) => f.subfields.filter((s) => s.code === code))[0]?.value ?? '';
    for (const { code, value } of f.subfields) {
      const url = code === 'u' ? webAddress(value) : null;
      if (url !== null && !links.has(url)) links.set(url, { field, url, written: value, text });
    }
  });
  return [...links.values()];
}

/** What trying an address found, as a sentence. */
export function linkSentence({ result, status, movedTo }: LinkCheck): string {
  const answer = status === null ? '' : ` (answer ${status})`;
  switch (result) {
    case 'fine':
      return 'The link works.';
    case 'moved':
      return `Moved for good to ${movedTo}. Correct the address.`;
    case 'gone':
      return `There is nothing at this address any more${answer}.`;
    case 'needs sign-in':
      return `The site asks for a sign-in${answer}.`;
    case 'faulty':
      return `The site answers with an error${answer}.`;
    case 'looping':
      return 'The address leads on in a circle.';
    case 'slow':
      return 'The site did not answer in time.';
    case 'not secure':
      return 'The connection is not secure: the site’s certificate is not valid, or it leads on to an address without encryption.';
    case 'own network':
      return 'Not tried: the address leads into the library’s own network.';
    case 'unreachable':
      return 'No site of this name can be reached.';
  }
}
