import { api, type EndpointSending } from '@osier/contract';
import { call } from '../../api/call';
import { ActSheet } from './ActSheet';

/** The review of a merge, or of another form of a heading; then it is done, by a job where many records carry it. */
export const MergeSheet = ({
  title,
  body,
  onClose,
  onDone,
}: {
  title: string;
  body: Omit<EndpointSending<typeof api.headings.merge>, 'token'>;
  onClose: () => void;
  onDone: () => void;
}) => (
  <ActSheet
    title={title}
    name={['merge', body]}
    page={(from) => call(api.headings.reviewMerge, { body: { ...body, from } })}
    act={(token) => call(api.headings.merge, { body: { ...body, token } })}
    onClose={onClose}
    onDone={onDone}
  />
);
