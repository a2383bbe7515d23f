// Every character of the MARC-8 tables as MARC::Charset has them (Debian: libmarc-charset-perl, made from the code tables of
// the Library of Congress), read as we read it, and written so that it reads the same.
import { execFileSync } from 'node:child_process';
import { decodeMarc8 } from './marc8';
import { encodeMarc8 } from './marc8-encode';
import { marc8Tables } from './marc8-tables';

interface Code {
  /** Final character of the set's escape sequence (MARC 21 Specifications: Character Sets, part 2). */
  readonly set: string;
  readonly bytes: readonly number[];
  readonly point: number;
  readonly combining: boolean;
}

/** Lines of set, bytes in hexadecimal, code point, 1 for a combining mark. */
const TABLE = `use MARC::Charset::Table; my $t = MARC::Charset::Table->new; my $db = $t->db; my %seen;
  while (my ($k) = each %$db) { my $c = $t->get_code($k) or next; my $ucs = $c->ucs || $c->alt or next;
    my $line = join("\\t", chr(hex($c->charset)), unpack('H*', pack('H*', $c->marc)), $ucs, $c->is_combining ? 1 : 0);
    print "$line\\n" unless $seen{$line}++ }`;

const codes: readonly Code[] = execFileSync('perl', ['-e', TABLE], { encoding: 'utf8', maxBuffer: 1 << 26 })
  .trim()
  .split('\n')
  .map((line) => {
    const [set, bytes, point, combining] = line.split('\t') as [string, string, string, string];
    return {
      set,
      bytes: [...Buffer.from(bytes, 'hex')],
      point: parseInt(point, 16),
      combining: combining === '1',
    };
  });

/** The code in its set, then ASCII again and an `a`, which a mark stands before. */
function alone({ set, bytes }: Code): Uint8Array {
  const high = bytes.some((b) => b >= 0x80);
  const start = high
    ? `\x1b)${set === 'E' ? '!E' : set}`
    : 'gbp'.includes(set)
      ? `\x1b${set}`
      : set === '1'
        ? '\x1b$1'
        : `\x1b(${set === 'E' ? '!E' : set}`;
  return Uint8Array.from(Buffer.from(`${start}${Buffer.from(bytes).toString('latin1')}\x1b(Ba`, 'latin1'));
}
/**
 * Left out: the halves of double-width marks, which MARC 21 now names as whole marks over both letters; the escape character;
 * and five codes that EACC does not have, whose bytes are beyond its range (33 to 126; MARC 21 Specifications, part 2).
 */
const isOutside = ({ set, bytes, point }: Code) =>
  (point >= 0xfe20 && point <= 0xfe23) ||
  point === 0x1b ||
  (set === '1' && (bytes[0] === 0x7f || bytes[1] === 0x20));
const published = codes.filter((c) => !isOutside(c));
const meant = ({ point, combining }: Code) => {
  const char = String.fromCodePoint(point);
  return (combining ? `a${char}` : `${char}a`).normalize('NFC');
};
const seen = ({ set, bytes, point }: Code) =>
  `${set} ${Buffer.from(bytes).toString('hex')} U+${point.toString(16)}`;

/** The tables are made once for all characters. */
const tables = marc8Tables();

test('all sets are there, with all their codes', () => {
  expect([...new Set(codes.map((c) => c.set))].sort().join('')).toBe('1234BENQSbgp');
  expect(published.length).toBeGreaterThan(16_000);
  expect(codes.length - published.length).toBe(9);
});

test('each code reads as the same character', () => {
  const other = published.flatMap((c) => {
    const { text, unknown } = decodeMarc8(alone(c), tables);
    return text === meant(c) && unknown.length === 0
      ? []
      : [`${seen(c)} ours ${[...text].map((x) => x.codePointAt(0)!.toString(16)).join(' ')}`];
  });
  expect(other).toEqual([]);
});

test('each character that is written in a set reads the same', () => {
  const other = published.filter((c) => decodeMarc8(encodeMarc8(meant(c), tables), tables).text !== meant(c));
  expect(other.map(seen)).toEqual([]);
});

test('characters that MARC-8 has are written in it, not as references', () => {
  const other = published.filter((c) => Buffer.from(encodeMarc8(meant(c), tables)).includes('&#x'));
  expect(other.map(seen)).toEqual([]);
});
