import type { Check } from './finding';
import { controlCharacter } from './characters/control-character';
import { entity } from './characters/entity';
import { notComposed } from './characters/decomposed-letter';
import { replacementCharacter } from './characters/replacement-character';
import { spaces } from './characters/spaces';
import { twiceEncoded } from './characters/double-encoded';
import { areaCode } from './coded/area-code';
import { bibliography } from './coded/bibliography';
import { countryAgainstPlace } from './coded/country-and-place';
import { countryCode } from './coded/country-code';
import { dateAgainstText } from './coded/date-and-text';
import { dateType } from './coded/date-type';
import { formAgainstDescription } from './coded/form-and-description';
import { illustrations } from './coded/illustrations';
import { languageAgainst041 } from './coded/language-and-041';
import { languageAgainst240 } from './coded/language-and-240';
import { languageCode } from './coded/language-code';
import { mainEntry } from './coded/main-entry';
import { typeAgainstContent } from './coded/type-and-content';
import { linkForm } from './links/link-invalid';
import { linkTwice } from './links/duplicate-link';
import { initials } from './names/initials';
import { nameDates } from './names/name-dates';
import { nameMarks } from './names/name-punctuation';
import { relator } from './names/relator';
import { sameNameTwice } from './names/duplicate-name';
import { controlNumber } from './numbers/control-number';
import { isbn13Missing } from './numbers/isbn-13-missing';
import { isbnForm } from './numbers/isbn-invalid';
import { isbnPlain } from './numbers/isbn-hyphens';
import { isbnQualifier } from './numbers/isbn-qualifier';
import { isbnTwice } from './numbers/isbn-duplicate';
import { issnForm } from './numbers/issn-invalid';
import { lccnForm } from './numbers/lccn-invalid';
import { copyrightSign } from './publication/copyright-sign';
import { descriptionMissing } from './publication/description-missing';
import { physicalForm } from './publication/physical-punctuation';
import { publicationIncomplete } from './publication/publication-incomplete';
import { publicationTwice } from './publication/duplicate-publication';
import { series440 } from './series/series-440';
import { seriesTraced } from './series/series-tracing';
import { barcode } from './shelf/barcode';
import { barcodeMissing } from './shelf/barcode-missing';
import { deweyForm } from './shelf/dewey-form';
import { holdingCodes } from './shelf/holding-codes';
import { lcClassForm } from './shelf/lc-class-form';
import { waitsForFullRecord } from './structure/brief-record';
import { tooLong } from './structure/too-long';
import { emptySubfield } from './structure/empty-subfield';
import { fixedCodes } from './structure/fixed-codes';
import { fixedLength } from './structure/fixed-length';
import { indicatorValue } from './structure/indicator-value';
import { linkage } from './structure/linkage';
import { notDefined } from './structure/undefined-tag';
import { notRepeatable } from './structure/repeated-field';
import { obsolete } from './structure/obsolete';
import { severalMainEntries } from './structure/multiple-main-entries';
import { titleMissing } from './structure/title-missing';
import { codedAndFree } from './subjects/uncontrolled-duplicate';
import { droppedSubdivision } from './subjects/deleted-subdivision';
import { duplicateSubject } from './subjects/duplicate-subject';
import { incompleteSubject } from './subjects/incomplete-subject';
import { subdivisionInText } from './subjects/uncoded-subdivision';
import { subjectSource } from './subjects/subject-source';
import { thesaurus } from './subjects/thesaurus';
import { allCapitals } from './title/all-capitals';
import { brackets } from './title/brackets';
import { capitalAfterArticle } from './title/capital-after-article';
import { endMark } from './title/end-mark';
import { mediumDesignation } from './title/medium-designation';
import { nonfilingCount } from './title/nonfiling-count';
import { partsOrder } from './title/title-order';
import { responsibilityInitials } from './title/responsibility-initials';
import { titleMarks } from './title/title-punctuation';

/** All checks, in the order in which they are run and listed in Set-up. */
export const CHECKS: readonly Check[] = [
  titleMissing,
  severalMainEntries,
  notRepeatable,
  notDefined,
  indicatorValue,
  obsolete,
  emptySubfield,
  fixedLength,
  fixedCodes,
  linkage,
  waitsForFullRecord,
  tooLong,
  controlCharacter,
  entity,
  notComposed,
  replacementCharacter,
  spaces,
  twiceEncoded,
  controlNumber,
  isbn13Missing,
  isbnForm,
  isbnQualifier,
  isbnPlain,
  isbnTwice,
  issnForm,
  lccnForm,
  areaCode,
  bibliography,
  countryAgainstPlace,
  countryCode,
  dateAgainstText,
  dateType,
  formAgainstDescription,
  illustrations,
  languageAgainst041,
  languageAgainst240,
  languageCode,
  mainEntry,
  typeAgainstContent,
  allCapitals,
  brackets,
  capitalAfterArticle,
  endMark,
  mediumDesignation,
  nonfilingCount,
  partsOrder,
  responsibilityInitials,
  titleMarks,
  copyrightSign,
  descriptionMissing,
  physicalForm,
  publicationIncomplete,
  publicationTwice,
  initials,
  nameDates,
  nameMarks,
  relator,
  sameNameTwice,
  codedAndFree,
  droppedSubdivision,
  duplicateSubject,
  incompleteSubject,
  subdivisionInText,
  subjectSource,
  thesaurus,
  series440,
  seriesTraced,
  linkForm,
  linkTwice,
  barcodeMissing,
  barcode,
  deweyForm,
  holdingCodes,
  lcClassForm,
];

/** Rises when what any check finds changes: the records of a store are checked anew then. */
export const CHECKS_VERSION = 4;
