import { api, type RegistryTaken } from '@osier/contract';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { OverviewSection } from '../../parts/Overview';
import { when } from '../../parts/when';
import { useJobs } from '../../shell/jobs-store';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { RegistryLoad } from './RegistryNames';
import { registryWords as wording } from './registry-words';

/** Rows that are shown; all of them are taken together. */
const SHOWN = 12;

/** Where the registry has changed its mind about headings that have its numbers; it can be asked at once, and its forms taken. */
export function RegistryNews() {
  const { data } = useApi(api.registry.news);
  const [file, setFile] = useState<RegistryTaken | null>(null);
  const isAsking = useJobs((s) => s.jobs.some((j) => j.kind === 'check-registry'));
  const mayTake = useMay('merge headings');
  const { complain } = useShell();
  if (!data || data.registry === null) return null;
  const renamed = data.rows.filter((r) => r.says === 'form');
  const check = async () => {
    try {
      await call(api.registry.check, {});
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const take = async () => {
    const takes = renamed.map((r) => ({ number: r.number, heading: r.heading }));
    try {
      setFile(await call(api.registry.take, { body: { takes } }));
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <OverviewSection title={data.registry}>
      <ul className="registry-news">
        {data.rows.slice(0, SHOWN).map((r) => (
          <li key={r.heading}>
            <Link to={`/headings/${r.heading}`}>{r.text}</Link> {wording.says[r.says]}{' '}
            <bdi>{wording.nowThere(r.form)}</bdi>
          </li>
        ))}
        {data.total > SHOWN ? <li className="faded">{wording.furtherNews(data.total - SHOWN)}</li> : null}
      </ul>
      {data.asked && data.total === 0 ? <p>{wording.nothingNew}</p> : null}
      <p className="faded">{data.asked ? wording.askedOn(when(data.asked)) : wording.neverAsked}</p>
      {mayTake ? (
        <div className="row">
          <Button disabled={isAsking} onClick={() => void check()}>
            {wording.askNow}
          </Button>
          {renamed.length ? (
            <Button onClick={() => void take()}>{wording.takeAll(renamed.length)}</Button>
          ) : null}
        </div>
      ) : null}
      {file ? <RegistryLoad file={file} onClose={() => setFile(null)} /> : null}
    </OverviewSection>
  );
}
