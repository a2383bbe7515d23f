import { codeName } from '../../format';
import { fold } from '../../text';
import { look, setPositions, type Check } from '../finding';
import { inControl, subfieldsOf } from '../view';

/**
 * Towns that publish much and whose name is hardly anybody else's, with their MARC country code (MARC Code List for
 * Countries; the choice is ours).
 */
const TOWNS: Record<string, string> = {
  london: 'enk',
  oxford: 'enk',
  manchester: 'enk',
  bristol: 'enk',
  edinburgh: 'stk',
  glasgow: 'stk',
  cardiff: 'wlk',
  belfast: 'nik',
  dublin: 'ie',
  paris: 'fr',
  lyon: 'fr',
  berlin: 'gw',
  munchen: 'gw',
  munich: 'gw',
  leipzig: 'gw',
  'frankfurt am main': 'gw',
  stuttgart: 'gw',
  hamburg: 'gw',
  koln: 'gw',
  wien: 'au',
  vienna: 'au',
  zurich: 'sz',
  geneve: 'sz',
  bern: 'sz',
  amsterdam: 'ne',
  leiden: 'ne',
  bruxelles: 'be',
  brussel: 'be',
  madrid: 'sp',
  barcelona: 'sp',
  lisboa: 'po',
  roma: 'it',
  milano: 'it',
  torino: 'it',
  firenze: 'it',
  kobenhavn: 'dk',
  stockholm: 'sw',
  oslo: 'no',
  helsinki: 'fi',
  warszawa: 'pl',
  krakow: 'pl',
  praha: 'xr',
  budapest: 'hu',
  moskva: 'ru',
  'sankt peterburg': 'ru',
  athena: 'gr',
  istanbul: 'tu',
  jerusalem: 'is',
  'tel aviv': 'is',
  'new york': 'nyu',
  chicago: 'ilu',
  philadelphia: 'pau',
  'los angeles': 'cau',
  'san francisco': 'cau',
  toronto: 'onc',
  montreal: 'quc',
  melbourne: 'vra',
  tokyo: 'ja',
  beijing: 'cc',
  'new delhi': 'ii',
  mumbai: 'ii',
};
/** Codes of a whole state that stand for its parts too. */
const WHOLE: Record<string, RegExp> = { xxk: /k$/, xxu: /u$/, xxc: /c$/, at: /a$/ };

export const countryAgainstPlace: Check = {
  rule: 'country-and-place',
  title: 'Country in 008 and place of publication differ',
  group: 'Coded fields',
  source: 'MARC 21, 008/15-17 and 264 $a',
  needs: ['260', '264'],
  run(view, tell) {
    const fixed = view.control('008');
    const p = [...view.tagged('264'), ...view.tagged('260')][0];
    const place = p && subfieldsOf(p, 'a')[0]?.value;
    if (!fixed || place === undefined || fixed.value.length < 18) return;
    const code = fixed.value.slice(15, 18).trim();
    const wanted = view.memory.of(countryOf, place);
    if (!wanted || code === wanted || code === '' || /^\||^(xx|vp)$/.test(code) || WHOLE[code]?.test(wanted))
      return;
    if (view.tagged('044').some((f) => subfieldsOf(f, 'a').some((s) => s.value.trim() === wanted))) return;
    if (/,\s*[A-Z]/.test(place) && !place.includes('[')) return;
    tell({
      severity: 'warning',
      where: inControl('008', fixed.at, 15, 18),
      message: `008 says ${codeName('countries', code) ?? code}; ${place.replace(/[\s:,;]+$/, '')} is in ${codeName('countries', wanted)}.`,
      fix: look(`Put ${wanted} into 008`, setPositions('008', fixed, 15, wanted.padEnd(3))),
    });
  },
};

/** The country of the first place named. */
function countryOf(place: string): string | undefined {
  const first = place
    .replace(/\(.*?\)/g, '')
    .split(/[,:;[(]/)
    .find((x) => x.trim() !== '');
  return TOWNS[fold(first ?? '')];
}
