import type { AlikeRow, NeighbourAnswer, NeighbourLookup, NeighbourTrial } from '@osier/contract';
import {
  isSought,
  readExplain,
  readSought,
  soughtText,
  suggestedIndexes,
  type Neighbour,
  type Sought,
} from '@osier/core/neighbours';
import { briefOf, LCCN } from '@osier/core/access';
import { foldedWords } from '@osier/core/text';
import { briefsOf } from '../catalogue/queries';
import { bestTitles } from '../catalogue/queries.pages';
import { recordsSharing } from '../deliveries/queries';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { keptJson } from '../store/kept-json';
import { neighbourRounds } from './ask-all';
import { NeighbourFailure } from './ports';
import { readFrom } from './read-from';

/** What an input looks for, what the catalogue has of it, and whom to ask. */
export async function lookUpBook(services: Services, text: string): Promise<NeighbourLookup> {
  const { store } = services;
  const read = readSought(text);
  if (!isSought(read)) return { sought: '', problem: read.problem, own: [], ask: [] };
  return {
    sought: soughtText(read),
    problem: null,
    own: await ownRecords(store, read),
    ask: (await neighbourRounds(services)).map((round) => round.map((n) => n.id)),
  };
}

const MOST_OWN = 5;

/** The records of the catalogue that have the number, or the words in their titles and names. */
async function ownRecords(store: Store, sought: Sought): Promise<AlikeRow[]> {
  const ids = sought.by === 'words' ? await withTheWords(store, sought) : await withTheNumber(store, sought);
  const briefs = await briefsOf(store, ids);
  return ids.flatMap((id) => {
    const brief = briefs.find((b) => b.id === id);
    if (!brief) return [];
    const { title, author, year, copies, branches } = brief;
    return [
      {
        ...{ record: id, title, author, year, copies },
        sure: sought.by !== 'words' && sought.by !== 'control',
        shared: sought.by === 'words' ? [] : [soughtText(sought)],
        doubts: [],
        branches: branches.split(' ').filter(Boolean),
      },
    ];
  });
}

async function withTheNumber(store: Store, sought: Exclude<Sought, { by: 'words' }>): Promise<number[]> {
  const key =
    sought.by === 'isbn'
      ? sought.isbn13
      : sought.by === 'issn'
        ? sought.number.replace('-', '')
        : sought.by === 'lccn'
          ? LCCN.normalise(sought.number)
          : `:${sought.number.toLowerCase().replace(/\s+/g, '')}`;
  const found = await recordsSharing(store, sought.by, [key], MOST_OWN);
  return found.flatMap(({ records }) => keptJson<number[]>(records)).slice(0, MOST_OWN);
}

async function withTheWords(
  store: Store,
  { title, name }: { title: string; name: string },
): Promise<number[]> {
  const words = foldedWords(`${title} ${name}`);
  if (words.length === 0) return [];
  return (await bestTitles(store, words, MOST_OWN)).map((p) => p.id);
}

/** What one neighbour has of what is looked for. That it fails is an answer too. */
export async function findAt(
  services: Services,
  id: number,
  text: string,
  { signal, anyway }: { readonly signal: AbortSignal; readonly anyway: boolean },
): Promise<NeighbourAnswer> {
  const { store, neighbours } = services;
  const held = await store.read('neighbour', id);
  if (!held) throw notFound(`Neighbour ${id}`);
  const sought = readSought(text);
  if (!isSought(sought)) throw wrong('text', sought.problem);
  const began = performance.now();
  const isOut = neighbours.asking.standing(id) !== null && !anyway;
  try {
    const answer = await neighbours.asking.ask(id, held.value, sought, { signal, anyway });
    return {
      ...(await readFrom(services, held.value, answer)),
      milliseconds: Math.round(performance.now() - began),
    };
  } catch (error) {
    if (!(error instanceof NeighbourFailure)) throw error;
    return {
      state: error.kind === 'stopped' ? 'stopped' : isOut ? 'left out' : 'failed',
      message: error.message,
      told: [],
      count: 0,
      records: [],
      milliseconds: Math.round(performance.now() - began),
    };
  }
}

/** Tries a neighbour as it is typed. */
export async function tryNeighbour(
  services: Services,
  neighbour: Neighbour,
  text: string,
  signal: AbortSignal,
): Promise<NeighbourTrial> {
  const typed = readSought(text);
  if (text !== '' && !isSought(typed)) throw wrong('text', typed.problem);
  const sought: Sought = isSought(typed) ? typed : { by: 'words', title: 'history', name: '' };
  const began = performance.now();
  const { explain, answer } = await services.neighbours.asking.tryOut(neighbour, sought, signal);
  const said = explain && readExplain(explain);
  const explained = said && {
    title: said.title,
    indexes: [...said.indexes],
    schemas: said.schemas.map((s) => s.name || s.identifier),
    most: said.most,
    suggested: suggestedIndexes(said),
  };
  const milliseconds = Math.round(performance.now() - began);
  if (answer instanceof NeighbourFailure)
    return {
      message: answer.message,
      isGood: false,
      explained,
      told: [],
      titles: [],
      count: 0,
      milliseconds,
    };
  const read = await readFrom(services, neighbour, answer);
  return {
    message:
      read.state === 'failed'
        ? read.message
        : `It answers: ${read.count.toLocaleString('en-GB')} found for ${soughtText(sought)}.`,
    isGood: read.state !== 'failed',
    explained,
    told: read.told,
    titles: read.records.slice(0, 3).map((r) => briefOf(r.marc).title),
    count: read.count,
    milliseconds,
  };
}
