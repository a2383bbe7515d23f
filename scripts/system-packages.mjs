// What the tests need of the system: Debian's Chromium and the reference libraries that we check ourselves against.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const NEEDED = [
  ['chromium', () => existsSync('/usr/bin/chromium')],
  ['yaz', () => has('yaz-marcdump', '-V')],
  ['zbar-tools', () => has('zbarimg', '--version')],
  ['poppler-utils', () => has('pdftoppm', '-v')],
  ['libxml2-utils', () => has('xmllint', '--version')],
  ['libmarc-record-perl', () => perl('MARC::Record')],
  ['libmarc-xml-perl', () => perl('MARC::File::XML')],
  ['libmarc-charset-perl', () => perl('MARC::Charset')],
  ['libmarc-lint-perl', () => perl('MARC::Lint')],
  ['libmarc-schema-perl', () => perl('MARC::Schema')],
  ['libmarc-spec-perl', () => perl('MARC::Spec')],
  ['liblibrary-callnumber-lc-perl', () => perl('Library::CallNumber::LC')],
];
const has = (command, arg) => spawnSync(command, [arg], { stdio: 'ignore' }).error === undefined;
const perl = (module) => spawnSync('perl', [`-M${module}`, '-e', '1'], { stdio: 'ignore' }).status === 0;

/** Installs what is missing as root; otherwise names the one line to run and throws. */
export function ensureSystemPackages() {
  const missing = NEEDED.filter(([, there]) => !there()).map(([name]) => name);
  if (missing.length === 0) return;
  const line = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (process.getuid?.() !== 0)
    throw new Error(`The tests need packages that are not here. Run this once:\n\n  sudo ${line}\n`);
  process.stdout.write(`· Installing ${missing.join(', ')}…\n`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  spawnSync('apt-get', ['update', '-qq'], { stdio: 'inherit', env });
  if (spawnSync('sh', ['-c', `${line} -qq`], { stdio: ['ignore', 'ignore', 'inherit'], env }).status !== 0)
    throw new Error(`This failed: ${line}`);
  const still = NEEDED.filter(([, there]) => !there()).map(([name]) => name);
  if (still.length) throw new Error(`Still missing after installing: ${still.join(', ')}.`);
}
