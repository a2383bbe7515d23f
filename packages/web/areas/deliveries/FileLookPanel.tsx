import type { FileLook } from '@osier/core/deliveries';
import { Button } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { KIND_OF_SEVERITY, Mark } from '../../parts/Mark';
import { useHouse } from '../../parts/use-house';
import type { LookProgress } from '../../workers/look-at-file';
import { deliveriesWords as wording } from './words';

const FORMAT = {
  iso2709: wording.iso2709,
  marcxml: 'MARCXML',
  json: 'MARC-in-JSON',
  lines: wording.recordsAsLines,
  csv: wording.aTableOfFieldAddresses,
};
const number = (n: number) => n.toLocaleString('en-GB');
const records = (n: number) => wording.record2(number(n), n === 1 ? '' : 's');

/** What is wrong with a file, worked out beside the page before anything is sent; it can be taken in at any time. */
export function FileLookPanel({
  file,
  taking,
  onTake,
  onLeave,
}: {
  file: File;
  taking: boolean;
  onTake: () => void;
  onLeave: () => void;
}) {
  const house = useHouse();
  const [progress, setProgress] = useState<LookProgress | null>(null);
  const [failed, setFailed] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (house === undefined) return;
    const worker = new Worker(new URL('../../workers/look-at-file.ts', import.meta.url), { type: 'module' });
    worker.onmessage = (e: MessageEvent<LookProgress>) => setProgress(e.data);
    worker.onerror = () => setFailed(true);
    // The rules and the code lists of the server, so that it will find the same.
    worker.postMessage({ file, house });
    return () => worker.terminate();
  }, [file, house]);
  const look = progress?.look;
  const refused = look !== undefined && look.problem !== null && look.records === 0;
  useEffect(() => button.current?.focus(), []);
  return (
    <section className="file-look" aria-label={wording.findingsIn(file.name)}>
      <div className="row spread">
        <h2>{file.name}</h2>
        <span className="row">
          <Button onClick={onLeave}>{wording.cancel}</Button>
          <Button ref={button} type="primary" disabled={refused} loading={taking} onClick={onTake}>
            {progress?.done && look && !refused ? wording.load(records(look.records)) : wording.loadFile}
          </Button>
        </span>
      </div>
      <p className="look-state" role="status">
        {failed
          ? wording.theFileCouldNotBe
          : look
            ? stateOf(look, file, progress.done)
            : wording.checkingTheFile}
      </p>
      {look && !progress.done && !failed ? (
        <progress max={file.size} value={look.bytes} aria-label={wording.partOfTheFileChecked} />
      ) : null}
      {look?.problem ? (
        <p className="note stop" role="alert">
          <Mark kind="stop" /> {look.problem}
        </p>
      ) : null}
      {look && look.records > 0 ? <Kinds look={look} done={progress.done} /> : null}
    </section>
  );
}

function stateOf(look: FileLook, file: File, done: boolean): string {
  const size =
    file.size < 1e6
      ? wording.kb(number(Math.ceil(file.size / 1000)))
      : wording.mb((file.size / 1e6).toLocaleString('en-GB', { maximumFractionDigits: 1 }));
  if (!look.format) return `${size}.`;
  const part = done ? '' : `, ${Math.floor((100 * look.bytes) / Math.max(1, file.size))} % looked at`;
  const lost = look.unreadable ? wording.cannotBeRead(number(look.unreadable)) : '';
  return wording.repairedInReading2(
    FORMAT[look.format],
    size,
    part,
    records(look.records),
    number(look.repaired),
    lost,
  );
}

function Kinds({ look, done }: { look: FileLook; done: boolean }) {
  const safe = look.findings.reduce((n, f) => n + f.safe, 0);
  if (done && look.repairs.length === 0 && look.findings.length === 0)
    return (
      <p>
        <Mark kind="clear" /> {wording.noFindings}
      </p>
    );
  return (
    <div className="look-kinds" role="group" aria-label={wording.findingsByKind2}>
      {look.repairs.length ? (
        <table className="plain">
          <caption>{wording.repairedInReading3}</caption>
          <tbody>
            {look.repairs.map((r) => (
              <tr key={r.code}>
                <td className="num">{number(r.records)}</td>
                <td>
                  {r.example.message}{' '}
                  <span className="faded">
                    {wording.firstAtRecordByte(number(r.example.record), number(r.example.offset))}
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {look.findings.length ? (
        <table className="plain">
          <caption>
            {wording.findings(
              look.findings.length === 1 ? wording.oneKind : wording.kinds(look.findings.length),
              safe ? wording.haveASafeFixAfter(number(safe)) : '',
            )}
          </caption>
          <tbody>
            {look.findings.map((f) => (
              <tr key={f.severity + f.rule}>
                <td className="num">{number(f.records)}</td>
                <td>
                  <Mark kind={KIND_OF_SEVERITY[f.severity]} /> <b>{f.title}</b>{' '}
                  <span className="faded">
                    {wording.record3(number(f.example.record), f.example.message)}
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </div>
  );
}
