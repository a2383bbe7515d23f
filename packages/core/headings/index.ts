export type { HeadingKind, HeadingUse } from './normal-form';
export { endTrimmed } from './end-marks';
export {
  headingGroup,
  headingIdentity,
  headingIn,
  headingKey,
  headingsIn,
  isSubjectKind,
  normalText,
  SUBJECT_KINDS,
} from './normal-form';
export { vocabularyOfAuthority, vocabularyOfField } from './vocabulary';
export type { Heading, HeadingReader } from './heading';
export {
  formText,
  headingFrom,
  headingReader,
  headingsOf,
  headingText,
  identityOf,
  isEstablished,
  keptForm,
  keyOfHeading,
  kindOfTracing,
  seeAlsos,
  seeFromKey,
  seeFroms,
} from './heading';
export type { AlikeGroup, ComparedHeading, LookAlike, NumberedHeading } from './look-alikes';
export {
  alikeAmong,
  alikeBuckets,
  alikePairs,
  comparedHeading,
  isCompared,
  lookAlikeGroups,
  lookAlikes,
  SAME,
} from './look-alikes';
export type { MergeForms, Merging, MergePlan } from './merge-plan';
export {
  formsOfMerge,
  mergedHeadings,
  mergedRecords,
  mergeForms,
  mergePlan,
  NotMergeable,
  withSeeFroms,
} from './merge-plan';
export { pairsTogether } from './pairs-together';
export { asNewForm, WrongForm } from './new-form';
export type { NewAuthority } from './new-authority';
export { HEADING_KINDS, newAuthority, unnamedHeading, vocabularyOfNew, withSubfields } from './new-authority';
export type { SplitPlan } from './split-plan';
export { isItsForm, splitPlan } from './split-plan';
export type { TakenFields } from './taken-fields';
export { TAKEN_FIELDS, takeableFields, withTakenFields } from './taken-fields';
export type { Distinct } from './distinct';
export { distinctChange } from './distinct';
export type { MergeForm } from './merge-form';
export { formOfAuthority, formOfField } from './merge-form';
export type { Followable, Followed } from './follow-see-froms';
export { followable, withKeptForms } from './follow-see-froms';
export type { MergedRecord } from './merge-record';
export { mergeInRecord } from './merge-record';
export { completedField } from './completed-field';
export type { Keepable, SuggestedFor } from './suggested-form';
export { suggestedForm } from './suggested-form';
export { CARRIED_HEADING, HEADING_FORM, HEADING_NUMBER, NUMBERS, SEE_ALSO, seeAlsoGroup } from './access';
export { authorityNumbers } from './authority-numbers';
export type { Replacement } from './replaced';
export type { AuthorityOutcome, AuthorityPlan, IncomingAuthority, MetHeadings } from './incoming-authority';
export { AUTHORITY_OUTCOMES, incomingAuthority, planAuthority } from './incoming-authority';
export type {
  BucketColumns,
  BucketIndex,
  Buckets,
  BucketWord,
  Form,
  FormGroup,
  Gathered,
  IndexRoom,
  Judged,
  AlikeVerdict,
  NumberLists,
  SeenHeading,
} from './alike';
export {
  alikeForms,
  bucketColumns,
  bucketsIn,
  compareForms,
  formIn,
  formsInOrder,
  gather,
  indexBuckets,
  judgedWith,
  matesFinder,
  seenInRecords,
  shorterFirst,
} from './alike';
export { HEADING_WORDS } from './words';
export type { FormOfMembers, RegistryName } from './registry';
export { numberIn, numbersQuery, registryName, registryNews, registryQuery } from './registry';
export { numberForRecords, withHeadingNumbers } from './numbered-fields';
export type { CarriedAlong } from './carried-along';
export { carriedAlong, changesAlong } from './carried-along';
