// Neighbours: one lookup at three sources that answer in 200 ms, and 200 books of a list, at the API.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../scripts/install.mjs';
import { client, start } from './served.mjs';
import { p95, took } from './timed.mjs';

const DELAY = 200;
const [LOOKUPS, BOOKS, AT_ONCE] = [200, 200, 2];

/** An ISBN of 13 digits (ISO 2108): its check digit makes the weighted sum a multiple of ten. */
function isbn(n) {
  const twelve = `9791${String(n).padStart(8, '0')}`;
  const sum = [...twelve].reduce((s, c, i) => s + Number(c) * (i % 2 ? 3 : 1), 0);
  return twelve + String((10 - (sum % 10)) % 10);
}

/** What a source answers to a search for an ISBN: one record that has it. */
const answer = (
  number,
) => `<?xml version="1.0"?><searchRetrieveResponse xmlns="http://www.loc.gov/zing/srw/"><version>1.2</version><numberOfRecords>1</numberOfRecords><records><record><recordData>
<record xmlns="http://www.loc.gov/MARC21/slim"><leader>00000cam a2200000 i 4500</leader><controlfield tag="001">${number}</controlfield><controlfield tag="008">040107s1973    enka   g      000 0 eng d</controlfield>
<datafield tag="020" ind1=" " ind2=" "><subfield code="a">${number}</subfield></datafield><datafield tag="100" ind1="1" ind2=" "><subfield code="a">Fenn, Ada.</subfield></datafield>
<datafield tag="245" ind1="1" ind2="0"><subfield code="a">Book ${number} /</subfield><subfield code="c">Ada Fenn.</subfield></datafield><datafield tag="300" ind1=" " ind2=" "><subfield code="a">120 pages</subfield></datafield></record>
</recordData></record></records></searchRetrieveResponse>`;

export async function neighboursBench() {
  const folder = mkdtempSync(join(tmpdir(), 'osier-neighbours-'));
  execFileSync(process.execPath, [join(root, 'demo/dist/main.mjs'), 'fill', folder], { stdio: 'ignore' });
  const site = createServer((req, res) => {
    const number = /97\d{11}/.exec(decodeURIComponent(req.url ?? ''))?.[0] ?? '';
    setTimeout(() => res.writeHead(200, { 'content-type': 'text/xml' }).end(answer(number)), DELAY);
  });
  await new Promise((done) => site.listen(0, '127.0.0.1', done));
  process.env.OSIER_NEIGHBOUR_HOSTS = `source.example=127.0.0.1:${site.address().port}`;
  const server = await start(folder);
  const { ask, until } = await client(server);
  for (const { id, version, neighbour } of await ask('GET', '/neighbours'))
    await ask('PUT', `/neighbours/${id}`, {
      version,
      neighbour: { ...neighbour, isUsed: false },
      password: null,
    });
  const [{ neighbour: like }] = await ask('GET', '/neighbours');
  const sources = [];
  for (const name of ['One', 'Two', 'Three']) {
    const neighbour = { ...like, name, address: `http://source.example/${name}`, isUsed: true };
    sources.push((await ask('POST', '/neighbours', { neighbour, password: null })).id);
  }
  const one = async (n) => {
    const text = isbn(n);
    const { ask: asked } = await ask('GET', `/neighbours/lookup?text=${text}`);
    const answers = await Promise.all(
      asked.flat().map((id) => ask('GET', `/neighbours/${id}/find?text=${text}`)),
    );
    if (answers.some((a) => a.records.length !== 1)) throw new Error(`${text} was not found everywhere.`);
  };
  await one(1);
  const times = [];
  for (let i = 0; i < LOOKUPS; i++) times.push(await took(() => one(i + 2)));
  const codes = Array.from({ length: BOOKS }, (_, i) => isbn(5000 + i));
  const all = await took(async () => until((await ask('POST', '/book-lists', { name: 'Bench', codes })).job));
  server.process.kill('SIGKILL');
  await server.ended;
  site.closeAllConnections();
  site.close();
  delete process.env.OSIER_NEIGHBOUR_HOSTS;
  rmSync(folder, { recursive: true, force: true });
  const against = 'the budget';
  return [
    {
      work: `one lookup at three sources that answer in ${DELAY} ms (p95 of ${LOOKUPS})`,
      ...{ against, ours: p95(times), theirs: 300, budget: 1, unit: 'ms' },
    },
    {
      work: `${BOOKS} books of a list, ${AT_ONCE} requests to a source at a time`,
      ...{
        against: 'what the source takes',
        ours: all,
        theirs: (BOOKS / AT_ONCE) * DELAY,
        budget: 1.2,
        unit: 'ms',
      },
    },
  ];
}
