import { api } from '@osier/contract';
import { call } from '../../api/call';
import { ActSheet } from './ActSheet';
import { headingsWords as wording } from './words';

/** The review of deleting headings, then it is done. */
export const DeleteSheet = ({
  headings,
  onClose,
  onDone,
}: {
  headings: readonly number[];
  onClose: () => void;
  onDone: () => void;
}) => (
  <ActSheet
    title={wording.deleteTitle}
    name={['delete-headings', headings]}
    page={(from) => call(api.headings.reviewDelete, { body: { headings: [...headings], from } })}
    act={(token) => call(api.headings.delete, { body: { headings: [...headings], token } })}
    onClose={onClose}
    onDone={onDone}
  />
);
