export type { HeadingKind, HeadingUse } from './normal-form';
export { endTrimmed, headingGroup, headingIdentity, headingIn, headingKey, normalText } from './normal-form';
export { vocabularyOfAuthority, vocabularyOfField } from './vocabulary';
export type { Heading } from './heading';
export {
  formText,
  headingFrom,
  headingsOf,
  headingText,
  identityOf,
  keptForm,
  keyOfHeading,
  seeFroms,
} from './heading';
export type { PersonalName } from './personal-name';
export { likeness, readPersonalName } from './personal-name';
export type { LookAlike, NumberedHeading } from './look-alikes';
export { lookAlikeGroups, lookAlikes } from './look-alikes';
export type { Distinct, MergePlan } from './merge-plan';
export { distinctChange, mergePlan } from './merge-plan';
