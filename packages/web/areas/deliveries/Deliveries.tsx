import { api } from '@osier/contract';
import { call } from '../../api/call';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { AreaHead } from '../../parts/AreaHead';
import { DropZone } from '../../parts/DropZone';
import { Mark } from '../../parts/Mark';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { DeliveryTable } from './DeliveryTable';
import { FileLookPanel } from './FileLookPanel';
import './deliveries.css';
import { deliveriesWords as wording } from './words';

/** Files of records that arrived. */
export default function Deliveries() {
  const { data: rows = [] } = useApi(api.deliveries.list);
  const [problems, setProblems] = useState<string[]>([]);
  const navigate = useNavigate();
  const mayTake = useMay('take in deliveries');
  const say = useShell((s) => s.say);
  const [looked, setLooked] = useState<readonly File[]>([]);
  const [taking, setTaking] = useState<File | null>(null);
  const leave = (file: File) => setLooked((files) => files.filter((f) => f !== file));
  const take = async (file: File) => {
    setProblems([]);
    setTaking(file);
    try {
      const { delivery, authorities } = await call(api.deliveries.takeIn, {
        query: { name: file.name },
        body: file,
      });
      if (authorities) {
        leave(file);
        const of = new URLSearchParams({ file: authorities, name: file.name });
        void navigate(`/headings?${of.toString()}`);
        return;
      }
      say(wording.loaded(file.name));
      leave(file);
      await refresh();
      if (looked.length === 1) void navigate(`/deliveries/${delivery}`);
    } catch (error) {
      setProblems([problemText(error)]);
    } finally {
      setTaking(null);
    }
  };
  const waiting = rows.reduce((n, r) => n + r.waiting, 0);
  return (
    <>
      <AreaHead
        name={wording.deliveries}
        state={
          rows.length
            ? wording.recordsWaiting(
                rows.length,
                rows.length === 1 ? wording.delivery : wording.deliveries2,
                waiting.toLocaleString('en-GB'),
              )
            : wording.noDeliveryYet
        }
      />
      <div className="deliveries">
        {mayTake ? (
          <DropZone
            label={wording.dropAFileHereIso}
            accept=".mrc,.marc,.iso,.xml,.json,.jsonl,.ndjson,.csv,.tsv,.txt,.dat,.bin"
            onFiles={(files) => {
              setProblems([]);
              setLooked((before) => [...before, ...files]);
            }}
          />
        ) : null}
        {problems.map((p, i) => (
          <p key={i} className="note stop" role="alert">
            <Mark kind="stop" /> {p}
          </p>
        ))}
        {looked.map((file, i) => (
          <FileLookPanel
            key={`${i} ${file.name} ${file.lastModified}`}
            file={file}
            taking={taking === file}
            onTake={() => void take(file)}
            onLeave={() => leave(file)}
          />
        ))}
        {rows.length === 0 ? (
          <p className="note">
            {wording.recordsThatASupplierOr} <code>demo/files</code>
            {wording.suchAs} <code>tallow-and-pike.mrc</code>
            {wording.or} <code>reedling-broken.mrc</code> {wording.withManyErrors}
          </p>
        ) : (
          <DeliveryTable rows={rows} />
        )}
      </div>
    </>
  );
}
