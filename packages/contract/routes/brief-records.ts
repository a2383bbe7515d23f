import { BRIEF_STATES } from '@osier/core/neighbours';
import { mixed, object, type InferType } from 'yup';
import { flag, listOf, orNull, shape, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { line, version } from '../inputs';
import { jobStateSchema, madeSchema } from '../objects/acts';
import { marcSchema } from '../objects/marc';
import { withErrors } from '../objects/sent-record';

/** The lists of brief records: `long` are those that wait longer than the house has it, whatever was found. */
export const BRIEF_LISTS = [...BRIEF_STATES, 'long'] as const;
export type BriefList = (typeof BRIEF_LISTS)[number];

const stands = {
  record: whole(),
  title: text(),
  author: text(),
  year: text(),
  copies: whole(),
  /** The day since which it waits. */
  since: text(),
  /** When the neighbours were asked last; '' for never. */
  asked: text(),
  state: wordOf(BRIEF_STATES),
  /** What the last asking found, as a sentence. */
  reason: text(),
  /** The neighbour whose record is offered, by name; '' for none. */
  from: text(),
};
const briefRow = shape(stands);
/** A brief record, and what was found for it. */
export type BriefRow = ValueOf<typeof briefRow>;
const briefPage = shape({
  rows: listOf(briefRow),
  next: orNull(text()),
  /** Which of them the page shows. */
  list: wordOf(BRIEF_LISTS),
  counts: shape({ waiting: whole(), offered: whole(), refused: whole(), long: whole() }),
  /** Days after which one is told as waiting long. */
  days: whole(),
  isAskedAtNight: flag(),
  /** The job that asks for them now. */
  job: orNull(whole()),
});
/** A page of brief records that stand in one way, with the counts of all. */
export type BriefPage = ValueOf<typeof briefPage>;
const briefDetail = shape({
  ...stands,
  version: whole(),
  /** What can be looked up to find it by hand. */
  lookFor: text(),
  /** As it is. */
  marc: marcSchema,
  /** What it would become; null where nothing is offered. */
  offer: orNull(
    shape({
      marc: marcSchema,
      /** What gives way to the kept forms of its headings, as sentences. */
      notes: listOf(text()),
      /** What the checks would find in it that is an error, as sentences. */
      errors: listOf(text()),
    }),
  ),
});
/** A brief record beside the full one that is offered for it. */
export type BriefDetail = ValueOf<typeof briefDetail>;

const take = 'take in deliveries' as const;
/** `asked`: of the asking whose offer was looked at. */
const offerBody = object({ version: version(), asked: line(40).required(), withErrors: withErrors() });
export type OfferBody = InferType<typeof offerBody>;

/** Brief records, and the full ones that neighbours have for them. */
export const briefRecordApi = {
  list: endpoint({
    method: 'get',
    path: '/brief-records',
    summary: 'Brief records that stand in one way, those that wait longest first',
    permission: 'look',
    query: object({ list: mixed<BriefList>().oneOf([...BRIEF_LISTS]), after: line(200) }),
    answer: briefPage,
  }),
  ask: endpoint({
    method: 'post',
    path: '/brief-records/ask',
    summary: 'Ask the neighbours for the full records of all brief ones, as a job',
    permission: take,
    status: 202,
    answer: jobStateSchema,
  }),
  read: endpoint({
    method: 'get',
    path: '/brief-records/:id',
    summary: 'A brief record, and what it would become by the full one that is offered',
    permission: 'look',
    answer: briefDetail,
    problems: [404],
  }),
  take: endpoint({
    method: 'post',
    path: '/brief-records/:id/take',
    summary:
      'Put the offered record in place of the brief one, which keeps its number, copies and own fields',
    permission: take,
    body: offerBody,
    answer: madeSchema,
    problems: [404],
  }),
  refuse: endpoint({
    method: 'post',
    path: '/brief-records/:id/refuse',
    summary: 'Say that the offered record is not the one: it is not offered again',
    permission: take,
    body: offerBody,
    answer: shape({ sentence: text() }),
    problems: [404],
  }),
};
