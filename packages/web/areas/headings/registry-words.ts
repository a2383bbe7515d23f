import { counted } from '@osier/core/changes';

/** Texts about the registry of names. */
export const registryWords = {
  noAnswer: (why: string) => `It does not answer: ${why}`,
  askAgain: 'Ask again',
  asking: 'Asking the registry…',
  hasNone: 'It has no name of these words.',
  more: (n: number) => `${n.toLocaleString('en-GB')} in all; type more of the name to see others.`,
  take: 'Take it for this heading',
  takeTitle: (name: string) => `Take from ${name}`,
  isThisOne: 'this heading has its number',
  isAnother: 'another heading here has its number:',
  isGone: (by: string) => (by ? `It is no more there: ${by}` : 'It is no more there.'),
  alsoKnownAs: (forms: string) => `Also ${forms}`,
  members: (forms: readonly { readonly form: string; readonly members: number }[]) =>
    forms.map((f) => `${f.form} (${counted(f.members, 'member')})`).join('; '),
  says: { form: 'has another form', gone: 'has it no more' },
  nowThere: (form: string) => (form ? `now: ${form}` : ''),
  askedOn: (day: string) => `Asked ${day}.`,
  neverAsked: 'It has not been asked for the headings here yet; it is every night.',
  nothingNew: 'It says the same of every heading that has its number.',
  askNow: 'Ask now',
  takeAll: (n: number) => `Take ${counted(n, 'form')}…`,
  furtherNews: (n: number) => `and ${n.toLocaleString('en-GB')} more`,
};
