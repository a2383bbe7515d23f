// Rebuilds packages/core/format/data/bibliographic.json from the Avram schema of the MARC 21 bibliographic
// format (Debian: libmarc-schema-perl). Facts only: tags, names, repeatability, indicator values, subfields,
// fixed positions with their code values.
import { readFileSync, writeFileSync } from 'node:fs';

const from = process.argv[2] ?? '/usr/share/perl5/auto/share/dist/MARC-Schema/marc-schema.json';
const schema = JSON.parse(readFileSync(from, 'utf8'));
const labels = (codes) =>
  Object.fromEntries(Object.entries(codes ?? {}).map(([code, c]) => [code, c.label ?? c]));
const indicator = (i) => (i ? { name: i.label, values: labels(i.codes) } : null);
const positions = (p) =>
  Object.values(p ?? {}).map((x) => ({ from: x.start, to: x.end, name: x.label, codes: labels(x.codes) }));
const fields = {};
for (const [tag, f] of Object.entries(schema.fields)) {
  const out = { name: f.label ?? (tag === 'LDR' ? 'Leader' : tag), repeatable: !!f.repeatable };
  if (f.indicator1 || f.indicator2) out.indicators = [indicator(f.indicator1), indicator(f.indicator2)];
  if (f.subfields)
    out.subfields = Object.fromEntries(
      Object.entries(f.subfields).map(([code, s]) => [code, s.repeatable ? [s.label, 1] : [s.label]]),
    );
  if (f['historical-subfields']) out.obsolete = Object.keys(f['historical-subfields']).join('');
  if (f.positions) out.positions = { all: positions(f.positions) };
  if (f.types)
    out.positions = Object.fromEntries(Object.entries(f.types).map(([k, t]) => [k, positions(t.positions)]));
  fields[tag] = out;
}
const data = {
  source:
    'MARC 21 Format for Bibliographic Data (Library of Congress), read from libmarc-schema-perl by scripts/rebuild/format-data.mjs',
  fields,
};
writeFileSync(
  new URL('../../packages/core/format/data/bibliographic.json', import.meta.url),
  JSON.stringify(data, null, 1) + '\n',
);
