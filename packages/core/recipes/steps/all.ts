import { addField } from './add-field';
import { applyFixes } from './apply-fixes';
import { buildField } from './build-field';
import { callNumber } from './call-number';
import { capitalAfterArticle } from './capital-after-article';
import { changeCase } from './change-case';
import { copyField } from './copy-field';
import { copySubfield } from './copy-subfield';
import { cutClass } from './cut-class';
import { deleteField } from './delete-field';
import { deleteSubfield } from './delete-subfield';
import { dropDuplicateSubjects } from './drop-duplicate-subjects';
import { dropIncompleteHeadings } from './drop-incomplete-headings';
import { dropSubdivision } from './drop-subdivision';
import { endMark } from './end-mark';
import { mapCodes } from './map-codes';
import { moveField } from './move-field';
import { moveSubfield } from './move-subfield';
import { renameSubdivision } from './rename-subdivision';
import { replaceText } from './replace-text';
import { setIndicator } from './set-indicator';
import { setPosition } from './set-position';
import { setSubfield } from './set-subfield';
import { sortFields } from './sort-fields';

/** Every kind of step, in the order in which they are offered. */
export const STEPS = {
  'add-field': addField,
  'delete-field': deleteField,
  'copy-field': copyField,
  'move-field': moveField,
  'set-subfield': setSubfield,
  'delete-subfield': deleteSubfield,
  'copy-subfield': copySubfield,
  'move-subfield': moveSubfield,
  'set-indicator': setIndicator,
  'replace-text': replaceText,
  'change-case': changeCase,
  'end-mark': endMark,
  'capital-after-article': capitalAfterArticle,
  'drop-subdivision': dropSubdivision,
  'rename-subdivision': renameSubdivision,
  'drop-duplicate-subjects': dropDuplicateSubjects,
  'drop-incomplete-headings': dropIncompleteHeadings,
  'sort-fields': sortFields,
  'set-position': setPosition,
  'map-codes': mapCodes,
  'cut-class': cutClass,
  'call-number': callNumber,
  'build-field': buildField,
  'apply-fixes': applyFixes,
};
