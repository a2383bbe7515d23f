import type { DraftPlace } from '../../parts/form/form-draft';

/** Where a form of Set-up keeps what is typed: by its page, and by what it is about when a page has several. */
export const draftOf = (page: string, title: string, about: string | number = ''): DraftPlace => ({
  key: `set-up ${page} ${about}`.trim(),
  title,
  path: `/set-up?show=${page}${about === '' ? '' : `&open=${about}`}`,
  isOfKept: true,
});
