/**
 * Short forms that keep their full stop at the end of a heading (Jr., Inc., cent.). Common practice, no source: the ones
 * that authority files are full of.
 */
const SHORT = new Set(
  `abbr abp abt acad adm adv agric alt amer ann anon app approx apr arch arr art assn assoc asst aug aufl ausg ave bart bd bde bib bibl biol bldg bp bros
  bull ca capt cent cf ch chem chr chron chs cia cie cl co col coll com comdr comm comp cong conf const coop corp cox ct cts dec dep dept dir dist div doc dr dt ed edn eds
  educ eng engl engr esq est etc ety exp ext facs fasc feb fed ff fig fl fr frl ft gebr gen geol ges gov govt gr gymn hist hon hosp hrsg illus inc incorp ing inst instr int intl
  introd jan jg jr jun jul kgl lab lib lic lieut ling lit lt ltd mag maj mass math med mem messrs mfg mgr min misc miss mlle mme mr mrs ms mss mt mus nat nd no nos nov nr num obs
  oct op orch ord org orig pat ph phil photo phys pl po pol pop port pp pref pres prof proj prot prov ps pseud pt pte pts pty pub publ pvt qu rd ref reg rep repr res ret
  rev rd rt ry sc sci sch sec sect sen sept ser serv sgt sig soc sp spec sq sr st sta stat ste str sup supt suppl surg tech tel theol tr trans treas trop tv twp ty univ unacc vet vol vols
  vs wm yr zool b d n r s t u v`.split(/\s+/),
);

/** The last word of a text that ends in a full stop, with stops inside it ("U.S.", "A."). */
const LAST_WORD = /([\p{L}\p{M}\p{N}.'’-]*)\.$/u;

/** Whether the full stop that a text ends in belongs to its last word: an initial, an abbreviation, an ellipsis. */
export function ownStop(text: string): boolean {
  const word = LAST_WORD.exec(text.trim())?.[1];
  if (word === undefined) return false;
  if (word === '' || word.endsWith('.')) return text.trim().endsWith('..');
  const last = word.split(/[.-]/).at(-1)!;
  // An initial, also the last of several ("J.R.R.", "Jean-P."), or a short form with stops inside ("Ph.D.").
  if (/^\p{L}\p{M}*$/u.test(last) || (word.includes('.') && last.length <= 3)) return true;
  return SHORT.has(last.toLowerCase());
}

const ENDS_IN_WORD = /[\w)]/;

/** Text without the marks that end a heading in a record: comma, semicolon, colon, and the full stop that is not its own. */
export function endTrimmed(text: string): string {
  const whole = text.trim();
  if (ENDS_IN_WORD.test(whole.slice(-1))) return whole;
  const t = whole.replace(/[\s,;:/]+$/u, '');
  return t.endsWith('.') && !ownStop(t) ? t.slice(0, -1).trimEnd() : t;
}
