// The grammar against MARC::Spec (Debian: libmarc-spec-perl).
import { execFileSync } from 'node:child_process';
import { isAddress, parseAddress, type Address } from '.';

const SPECS = [
  '...',
  '24.',
  '245',
  'LDR/6',
  '008/35-37',
  '008/#-2',
  '650^2',
  '245[0]',
  '245[1-#]$b[1]/0-3',
  '245$a$b$c',
  '245$a-c',
  '020$a{$q}',
  '020$a{!$q}',
  '020$c{$q=\\paperback}',
  '020$c{$q!~\\paper\\sback}',
  '245$a{/0=\\A|/0=\\B}{$c!~\\x}',
  '245$a{245$b}',
  '880$a{$6~100$6/3-5}{$6~\\880}',
  '245$a{008/35-37=\\eng}',
  '24',
  '245$',
  '245[',
  '245^3',
  '245/x',
  '245 $a',
];

/** Tag, index, characters, indicator, then for each subfield code, index, characters and number of conditions. */
function shape(text: string): string {
  const a = parseAddress(text);
  if (!isAddress(a)) return 'no';
  const r = (x: Address['index'], none: string) => (x ? `${x.from}-${x.to}` : none);
  return [
    a.tag,
    r(a.index, '0-#'),
    r(a.characters, ''),
    a.indicator ?? '',
    ...a.subfields.flatMap((s) =>
      Array.from(
        { length: s.to.charCodeAt(0) - s.from.charCodeAt(0) + 1 },
        (_, i) =>
          `${String.fromCharCode(s.from.charCodeAt(0) + i)}:${r(s.index, '0-#')}:${r(s.characters, '')}:${s.conditions.length}`,
      ),
    ),
  ].join(' ');
}

test('MARC::Spec and we read the same of every address, and refuse the same', () => {
  const script = `use MARC::Spec; $SIG{__WARN__} = sub {};
    for my $s (@ARGV) {
      my $m = eval { MARC::Spec::parse($s) };
      if ($@ || !$m) { print "no\\n"; next }
      my $r = sub { my ($o, $k, $none) = @_; my $has = "has_\${k}_start"; return $none unless $o->can($has) && $o->$has; my ($f, $t) = ("\${k}_start", "\${k}_end"); $o->$f . '-' . $o->$t };
      my $f = $m->field;
      my @out = ($f->tag, $f->index_start . '-' . $f->index_end, $r->($f, 'char', ''), $m->has_indicator ? $m->indicator->position : '');
      for my $x (@{ $m->has_subfields ? $m->subfields : [] }) {
        push @out, join ':', $x->code, $x->index_start . '-' . $x->index_end, $r->($x, 'char', ''), scalar @{ $x->has_subspecs ? $x->subspecs : [] };
      }
      print join(' ', @out), "\\n";
    }`;
  const theirs = execFileSync('perl', ['-e', script, ...SPECS], { encoding: 'utf8' })
    .trimEnd()
    .split('\n');
  expect(Object.fromEntries(SPECS.map((s) => [s, shape(s)]))).toEqual(
    Object.fromEntries(SPECS.map((s, i) => [s, theirs[i]])),
  );
});
