import type { Check } from './finding';
import { controlCharacter } from './characters/control-character';
import { entity } from './characters/entity';
import { notComposed } from './characters/not-composed';
import { replacementCharacter } from './characters/replacement-character';
import { spaces } from './characters/spaces';
import { twiceEncoded } from './characters/twice-encoded';
import { areaCode } from './coded/area-code';
import { bibliography } from './coded/bibliography';
import { countryAgainstPlace } from './coded/country-against-place';
import { countryCode } from './coded/country-code';
import { dateAgainstText } from './coded/date-against-text';
import { dateType } from './coded/date-type';
import { formAgainstDescription } from './coded/form-against-description';
import { illustrations } from './coded/illustrations';
import { languageAgainst041 } from './coded/language-against-041';
import { languageAgainst240 } from './coded/language-against-240';
import { languageCode } from './coded/language-code';
import { mainEntry } from './coded/main-entry';
import { typeAgainstContent } from './coded/type-against-content';
import { linkForm } from './links/link-form';
import { linkTwice } from './links/link-twice';
import { initials } from './names/initials';
import { nameDates } from './names/name-dates';
import { nameMarks } from './names/name-marks';
import { relator } from './names/relator';
import { sameNameTwice } from './names/same-name-twice';
import { controlNumber } from './numbers/control-number';
import { isbn13Missing } from './numbers/isbn-13-missing';
import { isbnForm } from './numbers/isbn-form';
import { isbnPlain } from './numbers/isbn-plain';
import { isbnQualifier } from './numbers/isbn-qualifier';
import { isbnTwice } from './numbers/isbn-twice';
import { issnForm } from './numbers/issn-form';
import { lccnForm } from './numbers/lccn-form';
import { copyrightSign } from './publication/copyright-sign';
import { descriptionMissing } from './publication/description-missing';
import { physicalForm } from './publication/physical-form';
import { publicationIncomplete } from './publication/publication-incomplete';
import { publicationTwice } from './publication/publication-twice';
import { series440 } from './series/series-440';
import { seriesTraced } from './series/series-traced';
import { barcode } from './shelf/barcode';
import { barcodeMissing } from './shelf/barcode-missing';
import { deweyForm } from './shelf/dewey-form';
import { holdingCodes } from './shelf/holding-codes';
import { lcClassForm } from './shelf/lc-class-form';
import { emptySubfield } from './structure/empty-subfield';
import { fixedCodes } from './structure/fixed-codes';
import { fixedLength } from './structure/fixed-length';
import { indicatorValue } from './structure/indicator-value';
import { linkage } from './structure/linkage';
import { notDefined } from './structure/not-defined';
import { notRepeatable } from './structure/not-repeatable';
import { obsolete } from './structure/obsolete';
import { severalMainEntries } from './structure/several-main-entries';
import { titleMissing } from './structure/title-missing';
import { codedAndFree } from './subjects/coded-and-free';
import { droppedSubdivision } from './subjects/dropped-subdivision';
import { duplicateSubject } from './subjects/duplicate-subject';
import { incompleteSubject } from './subjects/incomplete-subject';
import { subdivisionInText } from './subjects/subdivision-in-text';
import { subjectSource } from './subjects/subject-source';
import { thesaurus } from './subjects/thesaurus';
import { allCapitals } from './title/all-capitals';
import { brackets } from './title/brackets';
import { capitalAfterArticle } from './title/capital-after-article';
import { endMark } from './title/end-mark';
import { mediumDesignation } from './title/medium-designation';
import { nonfilingCount } from './title/nonfiling-count';
import { partsOrder } from './title/parts-order';
import { responsibilityInitials } from './title/responsibility-initials';
import { titleMarks } from './title/title-marks';

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
export const CHECKS_VERSION = 1;
