import { array, object, type InferType } from 'yup';
import { flag, listOf, orNull, shape, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { id, line } from '../inputs';
import { jobStateSchema } from '../objects/acts';

const registryAnswer = shape({
  /** What it is called; null where none is set up. */
  registry: orNull(text()),
  state: wordOf(['found', 'none', 'failed']),
  /** Why it gave nothing; '' where it answered. */
  message: text(),
  /** How many names it has, of which the first ones are here. */
  count: whole(),
  names: listOf(
    shape({
      number: text(),
      text: text(),
      seeFroms: listOf(text()),
      sources: listOf(text()),
      /** How many of its members use which form. */
      forms: listOf(shape({ form: text(), members: whole() })),
      /** It is no more. */
      isGone: flag(),
      replacedBy: text(),
      /** The heading here that has its number. */
      heading: orNull(whole()),
    }),
  ),
});
/** What the registry has of a name. */
export type RegistryAnswer = ValueOf<typeof registryAnswer>;

/** Names that are taken from the registry, each for a heading here, or to be a new one. */
export const registryTakeBody = object({
  takes: array(
    object({
      number: line(80).trim().required(),
      heading: id().nullable().default(null),
    }).required(),
  )
    .min(1, 'Choose a name.')
    .max(200, 'At most 200 names are taken at once.')
    .required(),
});
export type RegistryTakeBody = InferType<typeof registryTakeBody>;
const registryTaken = shape({
  sha256: text(),
  name: text(),
  onto: listOf(shape({ seq: whole(), heading: whole() })),
});
/** Names that were got from the registry, as a file of authority records that can be reviewed and loaded. */
export type RegistryTaken = ValueOf<typeof registryTaken>;

const newsList = shape({
  registry: orNull(text()),
  /** When it was asked last (ISO 8601). */
  asked: orNull(text()),
  total: whole(),
  rows: listOf(
    shape({
      heading: whole(),
      text: text(),
      /** Another form, or it is no more. */
      says: wordOf(['form', 'gone']),
      /** Its form, or what takes the place. */
      form: text(),
      number: text(),
      at: text(),
      records: whole(),
    }),
  ),
});
/** Where the registry says otherwise than the headings here. */
export type RegistryNewsList = ValueOf<typeof newsList>;

/** The shared file of names outside. */
export const registryApi = {
  ask: endpoint({
    method: 'get',
    path: '/registry',
    summary: 'What the registry has of a name; that it does not answer is told in the answer',
    permission: 'look',
    query: object({ name: line(300).trim().default('') }),
    answer: registryAnswer,
  }),
  take: endpoint({
    method: 'post',
    path: '/registry/take',
    summary: 'Get names from the registry, to be reviewed and loaded as a file of authority records',
    permission: 'merge headings',
    body: registryTakeBody,
    answer: registryTaken,
  }),
  news: endpoint({
    method: 'get',
    path: '/registry/news',
    summary: 'Where the registry says otherwise than the headings here, as it was asked last',
    permission: 'look',
    answer: newsList,
  }),
  check: endpoint({
    method: 'post',
    path: '/registry/check',
    summary: 'Ask the registry for all headings that have a number there',
    permission: 'merge headings',
    answer: jobStateSchema,
    status: 202,
  }),
};
