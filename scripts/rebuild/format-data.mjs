// Rebuilds packages/core/format/data/*.json. Facts only: tags, names, repeatability, indicator values, subfields, fixed
// positions with their codes, code lists.
// - bibliographic.json and codes.json from the Avram schema of the MARC 21 bibliographic format
//   (Debian: libmarc-schema-perl, which follows the Library of Congress documentation), with what indicators once meant
//   from facts/former-values.txt and the mistakes of the schema put right by facts/corrections.txt
// - authority.json and holdings.json from the line-by-line facts beside this script (see the heads of those files)
import { readFileSync, writeFileSync } from 'node:fs';

const from = process.argv[2] ?? '/usr/share/perl5/auto/share/dist/MARC-Schema/marc-schema.json';
const schema = JSON.parse(readFileSync(from, 'utf8'));
const here = new URL('.', import.meta.url);
const lists = {};

/** Code lists that other places know by a short name; the rest are named after themselves. */
const LIST_NAMES = {
  'MARC Code List for Languages': 'languages',
  'MARC Code List for Countries': 'countries',
  'MARC Code List for Geographic Areas': 'areas',
  'MARC Code List for Relators': 'relators',
  'Subject Heading and Term Source Codes': 'subjectSources',
  'Genre/Form Code and Term Source Codes': 'genreSources',
  'Classification Scheme Source Codes': 'classSources',
  'Standard Identifier Source Codes': 'identifierSources',
};
const CODED = new Set(['041', '043', '044', '100', '600', '655', '084', '024']);

const labels = (codes) =>
  Object.fromEntries(Object.entries(codes ?? {}).map(([code, c]) => [code, c.label ?? c]));
const some = (o) => (Object.keys(o).length ? o : undefined);
const indicator = (i) =>
  i ? { name: i.label, values: labels(i.codes), obsolete: some(labels(i['historical-codes'])) } : null;
const positions = (p) =>
  Object.values(p ?? {}).map((x) => ({
    from: x.start,
    to: x.end,
    name: x.label,
    unit: x.repeatableContent ? (x.unitLength ?? 1) : undefined,
    codes: labels(x.codes),
    obsolete: some(labels(x['historical-codes'])),
  }));

function listOf(tag, subfield) {
  const list = subfield.codelist;
  const name = list && LIST_NAMES[list.name];
  if (!name || !CODED.has(tag)) return;
  lists[name] ??= Object.fromEntries(
    Object.entries(list.codes).map(([code, c]) => [code, c.label ?? String(c)]),
  );
}

function bibliographicField([tag, f]) {
  const out = { name: f.label ?? (tag === 'LDR' ? 'Leader' : tag), repeatable: !!f.repeatable };
  if (f.indicator1 || f.indicator2) out.indicators = [indicator(f.indicator1), indicator(f.indicator2)];
  if (f.subfields)
    out.subfields = Object.fromEntries(
      Object.entries(f.subfields).map(([code, s]) => {
        listOf(tag, s);
        return [code, s.repeatable ? [s.label, 1] : [s.label]];
      }),
    );
  if (f['historical-subfields']) out.obsolete = Object.keys(f['historical-subfields']).join('');
  if (f.positions) out.positions = { all: positions(f.positions) };
  if (f.types)
    out.positions = Object.fromEntries(Object.entries(f.types).map(([k, t]) => [k, positions(t.positions)]));
  return [tag, out];
}

/** Adds to the indicators of fields the values that they once had. */
function withFormerValues(fields) {
  for (const line of readFileSync(new URL('facts/former-values.txt', here), 'utf8').split('\n')) {
    if (line.startsWith('#') || line.trim() === '') continue;
    const [, tags, which, rest] = /^([\d,]+) ([12]) (.*)$/.exec(line);
    for (const tag of tags.split(',').filter((t) => fields[t])) {
      const indicators = (fields[tag].indicators ??= [null, null]);
      const known = (indicators[which - 1] ??= { name: 'Undefined', values: { ' ': 'Undefined' } });
      known.obsolete = { ...namedValues(rest).values, ...known.obsolete };
    }
  }
  return fields;
}

/** Puts right what the schema has otherwise than the format; a line that changes nothing is out of date. */
function corrected(fields) {
  for (const line of readFileSync(new URL('facts/corrections.txt', here), 'utf8').split('\n')) {
    if (line.startsWith('#') || line.trim() === '') continue;
    const before = JSON.stringify(fields);
    const [tag, what, value, by] = line.split(' ');
    const field = fields[tag];
    if (what === 'R' || what === 'NR') field.repeatable = what === 'R';
    else if (what.startsWith('$'))
      field.subfields[what[1]] = [field.subfields[what[1]][0], ...(value === 'R' ? [1] : [])];
    else if (value === '-') field.indicators[what - 1] = null;
    else {
      const { values } = field.indicators[what - 1];
      values[by] = values[value];
      delete values[value];
    }
    if (JSON.stringify(fields) === before) throw new Error(`corrections: ${line} changes nothing`);
  }
  return fields;
}

/** `100 NR Heading - Personal name`, then lines `1 Name: value Meaning; …`, `2 …`, `$a R? Name; …`, `@06-08 Name: code Meaning; …`. */
function factsFormat(name) {
  const fields = {};
  let field;
  for (const line of readFileSync(new URL(`facts/${name}.txt`, here), 'utf8').split('\n')) {
    if (line.startsWith('#') || line.trim() === '') continue;
    const head = /^(\w{3}) (NR|R) ([^=]+?)(?: = (\w{3})(.*))?$/.exec(line);
    if (head) {
      const [, tag, r, label, like, more] = head;
      field = { name: label.trim(), repeatable: r === 'R' };
      if (like) {
        const other = JSON.parse(JSON.stringify(fields[like]));
        field = { ...other, ...field, subfields: { ...other.subfields, ...subfieldsIn(more) } };
      }
      fields[tag] = field;
    } else if (/^[12] /.test(line)) {
      field.indicators ??= [null, null];
      field.indicators[Number(line[0]) - 1] = namedValues(line.slice(2));
    } else if (line.startsWith('$')) field.subfields = { ...field.subfields, ...subfieldsIn(line) };
    else if (line.startsWith('@')) {
      const [, a, b, rest] = /^@(\d\d)(?:-(\d\d))? (.*)$/.exec(line);
      const { name: label, values } = namedValues(rest);
      const all = (field.positions ??= { all: [] }).all;
      all.push({ from: Number(a), to: Number(b ?? a) + 1, name: label, codes: values });
    } else throw new Error(`${name}: ${line}`);
  }
  return fields;
}
function subfieldsIn(text) {
  const found = [...text.matchAll(/\$(.)(\*?) ([^;]+)/g)];
  return Object.fromEntries(
    found.map(([, code, r, label]) => [code, r ? [label.trim(), 1] : [label.trim()]]),
  );
}
function namedValues(text) {
  const [name, values = ''] = text.split(/: (.*)/);
  const pairs = values
    .split(';')
    .map((v) => /^\s*(\S+) (.+)$/.exec(v))
    .filter(Boolean);
  return {
    name,
    values: Object.fromEntries(pairs.map(([, code, label]) => [code.replaceAll('#', ' '), label.trim()])),
  };
}

/** One line a field, so that a change of the format is a change of lines. */
function write(name, source, entries) {
  const rows = Object.entries(entries).map(
    ([key, value]) => `${JSON.stringify(key)}:${JSON.stringify(value)}`,
  );
  const text = `{"source":${JSON.stringify(source)},\n"fields":{\n${rows.join(',\n')}\n}}\n`;
  writeFileSync(new URL(`../../packages/core/format/data/${name}.json`, here), text);
}

const by = 'by scripts/rebuild/format-data.mjs';
write(
  'bibliographic',
  `MARC 21 Format for Bibliographic Data (Library of Congress), read from libmarc-schema-perl ${by}`,
  withFormerValues(corrected(Object.fromEntries(Object.entries(schema.fields).map(bibliographicField)))),
);
for (const format of ['authority', 'holdings'])
  write(
    format,
    `MARC 21 Format for ${format === 'authority' ? 'Authority' : 'Holdings'} Data (Library of Congress), from memory, line by line in scripts/rebuild/facts/${format}.txt, made ${by}`,
    factsFormat(format),
  );
write('codes', `MARC code lists (Library of Congress), read from libmarc-schema-perl ${by}`, lists);
