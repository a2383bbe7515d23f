import { groupedBarcode } from '../barcodes';
import { counted } from '../changes';
import { copyName } from '../holdings';
import { OUTCOME_NAMES } from '../matching';
import { countedOn } from '../piles';
import type { Act, ActName, ActParts, SearchName } from './act';
import { namesInShort, quoted } from './words';

/** "; 3 left as they were, because somebody changed them since the review", or nothing. */
export const leftMeanwhile = (n = 0): string =>
  n === 0
    ? ''
    : `; ${n} left as ${n === 1 ? 'it was' : 'they were'}, because somebody changed ${n === 1 ? 'it' : 'them'} since the review`;

/** How a search is named: "what “willow”, ger finds in the pile “Trolley”". */
export function searchName({ q, facets, within }: SearchName): string {
  const parts = [...(q ? [quoted(q)] : []), ...facets];
  if (parts.length) return `what ${parts.join(', ')} finds${within ? ` in ${within}` : ''}`;
  return within ?? 'the whole catalogue';
}

/** "40 new, 2 replaced, 52 copies": what is not nought. */
function acceptedParts(t: ActParts['accept']['counts']): string {
  const parts = [
    t.added && `${t.added} new`,
    t.replaced && `${t.replaced} replaced`,
    t.merged && `${t.merged} merged`,
    t.copiesOnly && `${t.copiesOnly} with copies only`,
    t.copies && counted(t.copies, 'copy', 'copies'),
    t.newHeadings && counted(t.newHeadings, 'new heading'),
    t.keptForms && `${counted(t.keptForms, 'see-from')} replaced by the kept form`,
    t.skipped && `${t.skipped} skipped`,
  ].filter(Boolean);
  return parts.join(', ');
}

const SETTLED = {
  'mark-missing': 'marked missing',
  'mark-found': 'marked found',
  'mark-found-tell': 'marked found and told to the loans desk',
  return: 'returned at the loans desk',
  'correct-location': 'given the right location',
  done: 'done at the shelf or the loans desk',
} as const;
/** "2 marked missing, 1 marked found": what is not nought. */
export const settledParts = (counts: ActParts['settle']['counts']): string =>
  (['mark-missing', 'mark-found', 'mark-found-tell', 'return', 'correct-location', 'done'] as const)
    .flatMap((act) => (counts[act] ? [`${counts[act]} ${SETTLED[act]}`] : []))
    .join(', ');

function accountChange({ names, did }: ActParts['account']): string {
  if (did.how === 'first') return `Made the first account, of ${names.person}`;
  if (did.how === 'added') return `Added ${names.person} as ${did.role}`;
  if (did.how === 'sessions-ended')
    return `Ended ${did.sessions === 1 ? 'a session' : `${did.sessions} sessions`} of ${names.person}`;
  const changes = [
    did.name !== undefined && `named ${did.name}`,
    did.role && `made ${did.role.to}, was ${did.role.from}`,
    did.active !== undefined && (did.active ? 'active again' : 'deactivated'),
    did.given && `may ${did.given.join(', ')}`,
    did.taken && `may no longer ${did.taken.join(', ')}`,
    did.password && 'given a new password',
  ].filter(Boolean);
  return `Changed the account of ${names.person}: ${changes.join(', ')}`;
}

function pileChange({ names, did }: ActParts['pile']): string {
  const pile = quoted(names.pile);
  switch (did.how) {
    case 'began':
      return `Started the pile ${pile}`;
    case 'note':
      return `Changed the note of the pile ${pile}`;
    case 'deleted':
      return `Deleted the pile ${pile}`;
    case 'renamed':
      return `Renamed the pile ${quoted(did.from)} to ${pile}`;
    case 'added':
      return `Added ${countedOn(did.of, did.count)} to the pile ${pile}${leftMeanwhile(did.meanwhile)}`;
    case 'removed':
      return `Removed ${countedOn(did.of, did.count)} from the pile ${pile}`;
  }
}

const SET_UP = {
  sheet: 'supplier sheet',
  roll: 'label roll',
  starter: 'starter',
  neighbour: 'neighbour',
  localfield: 'local field',
} as const;
const MADE = { made: 'Made', changed: 'Changed', deleted: 'Deleted', kept: 'Saved' } as const;

function setUpChange(act: ActParts['set-up']): string {
  if (act.what === 'house') return 'Changed the house rules';
  if (act.what !== 'lists') {
    const values = act.values ? `, with its values in ${counted(act.values, 'copy', 'copies')}` : '';
    return `${MADE[act.how]} the ${SET_UP[act.what]} ${quoted(act.names.name)}${values}`;
  }
  const { branches, locations, types, funds, suppliers } = act.counts;
  return `Changed the code lists: ${namesInShort([
    counted(branches, 'branch', 'branches'),
    counted(locations, 'location'),
    counted(types, 'type'),
    counted(funds, 'fund'),
    counted(suppliers, 'supplier'),
  ])}`;
}

const CORRECTED = {
  fields: 'Corrected',
  copies: 'Changed the copies of',
  note: 'Changed the note on',
} as const;

const withErrors = (n = 0): string => (n ? `, with ${counted(n, 'error')}` : '');
const likeOthers = (n: number): string =>
  n ? `, although ${counted(n, 'record')} ${n === 1 ? 'looks' : 'look'} like it` : '';

const pairNamed = (names: Readonly<Record<'one' | 'other', string>>, more = 0): string =>
  more
    ? `${quoted(names.one)}, ${quoted(names.other)} and ${counted(more, 'more heading')}`
    : `${quoted(names.one)} and ${quoted(names.other)}`;

/** That a barcode was taken from a roll that is reserved for a supplier. */
const fromReserved = (roll: string | undefined): string =>
  roll === undefined ? '' : `; its barcode is from the label roll ${quoted(roll)}, which is reserved`;

/** The same of several copies. */
const fromReservedRolls = (rolls: readonly string[] = []): string =>
  rolls.length === 0
    ? ''
    : `; barcodes are from the label roll${rolls.length === 1 ? '' : 's'} ${rolls.map(quoted).join(', ')}, though reserved`;

const SENTENCES: { readonly [A in ActName]: (act: ActParts[A]) => string } = {
  told: ({ sentence }) => sentence,
  'first-fill': ({ names }) => `Loaded the demo library of ${names.library}`,
  account: accountChange,
  deliver: ({ names }) => `Loaded the delivery ${quoted(names.delivery)}`,
  settings: ({ names }) => `Changed the settings of the delivery ${quoted(names.delivery)}`,
  match: ({ names, counts }) =>
    `Matched ${quoted(names.delivery)} again: ${counted(counts.changed, 'record')} with another outcome`,
  decide: ({ names, counts, outcome }) =>
    `Chose “${OUTCOME_NAMES[outcome]}” for ${counted(counts.records, 'incoming record')}${names.delivery && ` of ${quoted(names.delivery)}`}`,
  correct: ({ names, what }) => `${CORRECTED[what]} the incoming record ${quoted(names.title)}`,
  clean: ({ names, counts }) =>
    `Ran “${names.recipe}” over ${quoted(names.delivery)}: ${counted(counts.changed, 'record')} changed${leftMeanwhile(counts.meanwhile)}`,
  accept: ({ names, counts }) => {
    const records = counts.added + counts.replaced + counts.merged + counts.copiesOnly;
    const parts = acceptedParts(counts);
    return `Accepted ${counted(records, 'record')} of ${quoted(names.delivery)}${parts && `: ${parts}`}${leftMeanwhile(counts.meanwhile)}`;
  },
  'take-back': ({ names, counts }) =>
    `Undid the accepting of ${counted(counts.records, 'record')} of ${quoted(names.delivery)}${leftMeanwhile(counts.meanwhile)}`,
  'make-record': ({ names, counts }) =>
    `Added ${quoted(names.title)}${withErrors(counts.errors)}${likeOthers(counts.alike)}`,
  'make-brief': ({ names, counts, overruled }) =>
    `Added the brief record ${quoted(names.title)} with copy ${groupedBarcode(names.barcode)}, ${names.location}${likeOthers(counts.alike)}${fromReserved(overruled)}`,
  'copy-record': ({ names, counts, overruled }) =>
    `Copied ${quoted(names.title)} from ${names.neighbour}${counts.copies ? ` with ${counted(counts.copies, 'copy', 'copies')}` : ''}${withErrors(counts.errors)}${likeOthers(counts.alike)}${fromReservedRolls(overruled)}`,
  'grow-record': ({ names, counts }) =>
    `Replaced the brief record ${quoted(names.title)} by the full one of ${names.neighbour}${withErrors(counts.errors)}`,
  'grow-records': ({ counts }) =>
    `Replaced ${counted(counts.records, 'brief record')} by ${counts.records === 1 ? 'its full one' : 'their full ones'}`,
  'merge-records': ({ names, counts, errors, notes = [] }) =>
    [
      `Merged ${counted(counts.records, 'record')} into ${quoted(names.title)}${withErrors(errors)}${counts.copies ? `: ${counted(counts.copies, 'copy', 'copies')} moved` : ''}`,
      ...notes,
    ].join('; '),
  'records-apart': ({ names }) =>
    `Recorded ${quoted(names.one)} and ${quoted(names.other)} as two titles${names.reason ? `: ${names.reason}` : ''}`,
  'delete-record': ({ names, counts }) =>
    `Deleted ${quoted(names.title)}${counts.holdings ? ` with ${counted(counts.holdings, 'holding')}` : ''}`,
  suppress: ({ names, how }) =>
    how === 'suppressed'
      ? `Suppressed ${quoted(names.title)} from the public`
      : `Showed ${quoted(names.title)} to the public again`,
  'edit-record': ({ names, tags, notes, errors }) =>
    [`Edited ${quoted(names.title)}: ${namesInShort(tags, 6)}${withErrors(errors)}`, ...notes].join('; '),
  'clean-records': ({ names, counts, of }) =>
    `Ran “${names.recipe}” over ${searchName(of)}: ${counted(counts.changed, 'record')} changed${leftMeanwhile(counts.meanwhile)}`,
  'add-holding': ({ names }) =>
    `Added a holding to ${quoted(names.title)}: ${names.callNumber}, ${names.location}`,
  'add-copy': ({ names, counts, overruled }) =>
    `Added ${copyName({ number: counts.number, part: names.part || undefined })} (${groupedBarcode(names.barcode)}) to ${quoted(names.title)}${fromReserved(overruled)}`,
  'change-copy': ({ names, status, reason, was, overruled }) =>
    (status
      ? `Copy ${groupedBarcode(names.barcode)} is now ${status.to}, was ${status.from}${reason ? `: ${reason}` : ''}`
      : `Changed copy ${groupedBarcode(names.barcode)}`) +
    (was ? `; its barcode was ${groupedBarcode(was)}` : '') +
    fromReserved(overruled),
  'change-holding': ({ names, was }) =>
    `Changed a holding of ${quoted(names.title)} to ${names.callNumber}, ${names.location}; it was ${was}`,
  'delete-holding': ({ names }) =>
    `Deleted the holding ${names.callNumber}, ${names.location}, of ${quoted(names.title)}`,
  'move-holding': ({ names, counts }) =>
    `Moved the holding ${names.callNumber} with ${counted(counts.copies, 'copy', 'copies')} from ${quoted(names.from)} to ${quoted(names.title)}`,
  'join-holdings': ({ names, counts }) =>
    `Joined the holding ${names.from} of ${quoted(names.title)} to ${names.callNumber}: ${counted(counts.copies, 'copy', 'copies')} moved`,
  'move-copy': ({ names }) =>
    `Moved copy ${groupedBarcode(names.barcode)} to ${quoted(names.title)}, ${names.callNumber}, ${names.location}`,
  'swap-barcodes': ({ names }) =>
    `Swapped the barcodes ${groupedBarcode(names.one)} and ${groupedBarcode(names.other)}`,
  'load-loans': ({ names, counts }) =>
    `Loaded loan figures of ${counted(counts.changed, 'copy', 'copies')} from ${names.file}${counts.unknown ? `; ${counted(counts.unknown, 'barcode')} of no copy` : ''}${leftMeanwhile(counts.meanwhile)}`,
  'change-copies': ({ names, counts }) =>
    `Changed ${counted(counts.changed, 'copy', 'copies')}: ${names.what}${counts.refused ? `; ${counted(counts.refused, 'copy', 'copies')} could not be` : ''}${leftMeanwhile(counts.meanwhile)}`,
  'add-copies': ({ names, counts, overruled }) =>
    `Added ${counted(counts.copies, 'copy', 'copies')} to ${quoted(names.title)}${counts.holdings ? `, with ${counted(counts.holdings, 'new holding')}` : ''}${fromReservedRolls(overruled)}`,
  merge: ({ names, counts }) =>
    `Merged ${counted(counts.headings, 'heading')} into ${quoted(names.kept)}: ${counted(counts.records, 'record')} changed`,
  'add-heading': ({ names }) => `Added the heading ${quoted(names.heading)}`,
  'edit-heading': ({ names, tags }) =>
    `Edited the authority record ${quoted(names.heading)}: ${tags.join(', ')}`,
  'delete-headings': ({ names, counts }) =>
    counts.headings === 1
      ? `Deleted the heading ${quoted(names.first)}`
      : `Deleted ${counted(counts.headings, 'heading')}, ${quoted(names.first)} among them`,
  'make-headings': ({ counts }) => `Made ${counted(counts.headings, 'heading')} that records carry`,
  'take-authorities': ({ names, counts }) =>
    `Loaded ${counted(counts.headings, 'authority record')} from ${quoted(names.file)}: ${counted(counts.made, 'new heading')}, ${counted(counts.records, 'record')} changed`,
  'merge-all': ({ counts }) =>
    `Merged ${counted(counts.groups, 'group')} of headings that are the same: ${counted(counts.records, 'record')} changed${leftMeanwhile(counts.meanwhile)}`,
  'change-heading': ({ names, counts }) =>
    `Changed the heading ${quoted(names.from)} to ${quoted(names.to)}: ${counted(counts.records, 'record')} changed`,
  'split-heading': ({ names, counts }) =>
    `Split ${quoted(names.from)}: ${counted(counts.records, 'record')} now under ${quoted(names.to)}`,
  'keep-apart': ({ names, more, reason }) =>
    `Recorded ${pairNamed(names, more)} as different headings${reason ? ` (${reason})` : ''}`,
  'look-later': ({ names, more, how }) =>
    how === 'parked'
      ? `Put by ${pairNamed(names, more)} to look at later`
      : `Took up ${pairNamed(names, more)} again`,
  pile: pileChange,
  recipe: ({ names, counts, how }) =>
    `${MADE[how]} the recipe ${quoted(names.recipe)}${how === 'kept' ? `: ${counted(counts.steps, 'step')}` : ''}`,
  'delete-list': ({ names }) => `Deleted the withdrawal list ${quoted(names.list)}`,
  'change-list': ({ names }) => `Changed the withdrawal list ${quoted(names.list)}`,
  'keep-sheet': ({ names, how }) => `${MADE[how]} the sheet of labels ${quoted(names.sheet)}`,
  'keep-search': ({ names, how }) => `${MADE[how]} the search ${quoted(names.search)}`,
  'start-list': ({ names }) => `Started the withdrawal list ${quoted(names.list)}`,
  restore: ({ counts }) =>
    `Undid the withdrawal of ${counted(counts.copies, 'copy', 'copies')}${counts.records ? `, and brought ${counted(counts.records, 'record')} back` : ''}`,
  withdraw: ({ names, counts }) =>
    `Withdrew ${counted(counts.copies, 'copy', 'copies')} from ${quoted(names.list)}${counts.records ? `, and ${counted(counts.records, 'record')} with the last copy` : ''}`,
  'tell-union': ({ counts: { records, holdings, back } }) =>
    `Told the union catalogue of ${[
      records && `${counted(records, 'record')} deleted`,
      holdings && `${counted(holdings, 'holding')} removed`,
      back && `${counted(back, 'holding')} back`,
    ]
      .filter(Boolean)
      .join(', ')}`,
  'start-stocktake': ({ names }) => `Started the stocktake ${quoted(names.stocktake)}`,
  'load-scans': ({ names, counts }) =>
    `Loaded ${counted(counts.scans, 'scan')} from ${quoted(names.file)} into ${quoted(names.stocktake)}`,
  'close-stocktake': ({ names, counts }) =>
    `Closed the stocktake ${quoted(names.stocktake)}: ${counts.found} of ${counts.expected} found, ${counted(counts.findings, 'finding')} left`,
  settle: ({ names, counts }) => {
    const all = Object.values(counts).reduce((a, b) => a + b, 0);
    return `Settled ${counted(all, 'finding')} of ${quoted(names.stocktake)}: ${settledParts(counts)}`;
  },
  'set-up': setUpChange,
  undo: ({ of, again }) => `${again ? 'Redid' : 'Undid'}: ${actSentence(of)}`,
};

/** What was done, as one sentence without its full stop. The only place that makes one. */
export function actSentence(act: Act): string {
  return sentenceOf(act.act, act);
}

const sentenceOf = <A extends ActName>(name: A, act: ActParts[A]): string => SENTENCES[name](act);

/** The act at the bottom of a chain of undoings. */
export const actUndone = (act: Act): Act => (act.act === 'undo' ? actUndone(act.of) : act);
