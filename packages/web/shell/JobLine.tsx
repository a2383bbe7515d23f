import { api, type JobState } from '@osier/contract';
import { Button } from 'antd';
import { call } from '../api/call';
import { shellWords as wording } from './words';

const number = (n: number) => n.toLocaleString('en-GB');

/** How far a job is: bar, count, rate, time left, and its cancelling. */
export const JobLine = ({ job: j }: { job: JobState }) => (
  <span className="job">
    {j.title}: <progress aria-label={j.title} value={j.done} max={j.total ?? undefined} /> {number(j.done)}
    {j.total ? wording.of(number(j.total)) : ''}
    {j.rate ? wording.aSecond(number(Math.round(j.rate))) : ''}
    {j.secondsLeft !== null && j.secondsLeft > 1 ? wording.sLeft(number(Math.round(j.secondsLeft))) : ''}
    <Button size="small" onClick={() => void call(api.jobs.cancel, { params: { id: j.id } })}>
      {wording.cancel}
    </Button>
  </span>
);
