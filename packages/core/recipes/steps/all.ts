import { addFieldStep } from './add-field';
import { applyFixesStep } from './apply-fixes';
import { buildFieldStep } from './build-field';
import { callNumberStep } from './call-number';
import { capitalAfterArticleStep } from './capital-after-article';
import { changeCaseStep } from './change-case';
import { copyFieldStep } from './copy-field';
import { copySubfieldStep } from './copy-subfield';
import { cutClassStep } from './cut-class';
import { deleteFieldStep } from './delete-field';
import { deleteSubfieldStep } from './delete-subfield';
import { dropDuplicateSubjectsStep } from './drop-duplicate-subjects';
import { dropIncompleteHeadingsStep } from './drop-incomplete-headings';
import { dropSubdivisionStep } from './drop-subdivision';
import { endMarkStep } from './end-mark';
import { mapCodesStep } from './map-codes';
import { moveFieldStep } from './move-field';
import { moveSubfieldStep } from './move-subfield';
import { renameSubdivisionStep } from './rename-subdivision';
import { replaceTextStep } from './replace-text';
import { setIndicatorStep } from './set-indicator';
import { setPositionStep } from './set-position';
import { setSubfieldStep } from './set-subfield';
import { sortFieldsStep } from './sort-fields';

/** Every kind of step, in the order in which they are offered. */
export const STEPS = {
  'add-field': addFieldStep,
  'delete-field': deleteFieldStep,
  'copy-field': copyFieldStep,
  'move-field': moveFieldStep,
  'set-subfield': setSubfieldStep,
  'delete-subfield': deleteSubfieldStep,
  'copy-subfield': copySubfieldStep,
  'move-subfield': moveSubfieldStep,
  'set-indicator': setIndicatorStep,
  'replace-text': replaceTextStep,
  'change-case': changeCaseStep,
  'end-mark': endMarkStep,
  'capital-after-article': capitalAfterArticleStep,
  'drop-subdivision': dropSubdivisionStep,
  'rename-subdivision': renameSubdivisionStep,
  'drop-duplicate-subjects': dropDuplicateSubjectsStep,
  'drop-incomplete-headings': dropIncompleteHeadingsStep,
  'sort-fields': sortFieldsStep,
  'set-position': setPositionStep,
  'map-codes': mapCodesStep,
  'cut-class': cutClassStep,
  'call-number': callNumberStep,
  'build-field': buildFieldStep,
  'apply-fixes': applyFixesStep,
};
