import { api } from '@osier/contract';
import type { MarcRecord } from '@osier/core/marc';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { Compare } from '../../parts/Compare';
import type { RecordDraft } from '../../parts/record-draft/use-record-draft';
import { when } from '../../parts/when';
import { TakeFields } from './TakeFields';
import { catalogueWords as wording } from './words';

const NOW = 0;

/** The versions of a record: who made each and by which act, how any two differ, and what of one is brought back; between them what was done with its holdings and copies. */
export function Versions({
  id,
  now,
  edit,
}: {
  id: number;
  /** The record with what is typed and not saved. */
  now: MarcRecord;
  edit: RecordDraft | undefined;
}) {
  const { data } = useApi(api.desk.versions, { params: { id }, query: {} });
  const [chosen, setChosen] = useState<number | null>(null);
  const [against, setAgainst] = useState(NOW);
  const history = data?.rows ?? [];
  const rows = history.filter((r) => r.isVersion);
  const older = chosen ?? rows[1]?.entry ?? rows[0]?.entry ?? null;
  const one = useApi(api.desk.version, older ? { params: { id, entry: older } } : null).data?.marc;
  const other = useApi(api.desk.version, against ? { params: { id, entry: against } } : null).data?.marc;
  const beside: MarcRecord | null | undefined = against === NOW ? now : other;
  const name = (entry: number) => {
    const at = rows.find((r) => r.entry === entry);
    return at ? `${when(at.at)}, ${at.person}` : String(entry);
  };
  return (
    <section aria-label={wording.versions}>
      <ol className="versions">
        {history.map((v) => (
          <li key={v.entry} className={v.entry === older ? 'chosen' : undefined}>
            {v.isVersion ? (
              <Button
                type="text"
                size="small"
                aria-pressed={v.entry === older}
                onClick={() => setChosen(v.entry)}
              >
                {when(v.at)}
              </Button>
            ) : (
              <span className="faded no-version">{when(v.at)}</span>
            )}
            <span>
              {v.person} · <Link to={`/daybook/${v.entry}`}>{v.sentence}</Link>
              {v === rows[0] ? <span className="faded"> {wording.asItStands}</span> : null}
            </span>
          </li>
        ))}
      </ol>
      {data?.next ? <p className="faded">{wording.olderVersionsInTheDaybook}</p> : null}
      {older && one === null ? <p>{wording.thisEntryDeletedIt}</p> : null}
      {older && one && beside ? (
        <>
          <div className="row spread">
            <label className="row">
              {wording.versionOf(name(older))}
              <Select<number>
                size="small"
                aria-label={wording.comparedWith}
                popupMatchSelectWidth={false}
                value={against}
                options={[
                  { value: NOW, label: wording.asItStandsNow },
                  ...rows
                    .filter((r) => r.entry !== older)
                    .map((r) => ({ value: r.entry, label: name(r.entry) })),
                ]}
                onChange={setAgainst}
              />
            </label>
            {edit && against === NOW ? (
              <Button size="small" onClick={() => edit.become(one)}>
                {wording.bringBackAll}
              </Button>
            ) : null}
          </div>
          {edit && against === NOW ? (
            <TakeFields from={one} edit={edit} verb={wording.bringBack} same={wording.theSameAsNow} />
          ) : (
            <Compare before={one} after={beside} />
          )}
        </>
      ) : null}
    </section>
  );
}
