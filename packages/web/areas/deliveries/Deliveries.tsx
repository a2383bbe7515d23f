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
      const { delivery } = await call(api.deliveries.takeIn, { query: { name: file.name }, body: file });
      say(`Loaded ${file.name}`);
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
        name="Deliveries"
        state={
          rows.length
            ? `${rows.length} ${rows.length === 1 ? 'delivery' : 'deliveries'}, ${waiting.toLocaleString('en-GB')} records wait.`
            : 'No delivery yet.'
        }
      />
      <div className="deliveries">
        {mayTake ? (
          <DropZone
            label="Drop a delivery here: ISO 2709 (.mrc, UTF-8 or MARC-8), MARCXML, MARC-in-JSON, or a table headed by field addresses (020$a, 245$a)."
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
            Records that a supplier or another library sent wait here until you accept them. To try it, drop
            one of the files from <code>demo/files</code>, such as <code>tallow-and-pike.mrc</code>, or{' '}
            <code>reedling-broken.mrc</code> with everything wrong in it.
          </p>
        ) : (
          <DeliveryTable rows={rows} />
        )}
      </div>
    </>
  );
}
