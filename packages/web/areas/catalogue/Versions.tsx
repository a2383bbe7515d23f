import { api } from '@osier/contract';
import { fieldBroughtBack } from '@osier/core/editing';
import { compareRecords, fieldText, type FieldPair, type MarcRecord } from '@osier/core/marc';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { Compare } from '../../parts/Compare';
import type { RecordDraft } from '../../parts/record-draft/use-record-draft';
import { when } from '../../parts/when';
import { catalogueWords as wording } from './words';

const NOW = 0;

/** The versions of a record: who made each and by which act, how any two differ, and what of one is brought back. */
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
  const { data } = useApi(api.records.versions, { params: { id }, query: {} });
  const [chosen, setChosen] = useState<number | null>(null);
  const [against, setAgainst] = useState(NOW);
  const rows = data?.rows ?? [];
  const older = chosen ?? rows[1]?.entry ?? rows[0]?.entry ?? null;
  const one = useApi(api.records.version, older ? { params: { id, entry: older } } : null).data?.marc;
  const other = useApi(api.records.version, against ? { params: { id, entry: against } } : null).data?.marc;
  const beside: MarcRecord | null | undefined = against === NOW ? now : other;
  const name = (entry: number) => {
    const at = rows.find((r) => r.entry === entry);
    return at ? `${when(at.at)}, ${at.person}` : String(entry);
  };
  return (
    <section aria-label={wording.versions}>
      <ol className="versions">
        {rows.map((v, i) => (
          <li key={v.entry} className={v.entry === older ? 'chosen' : undefined}>
            <Button
              type="text"
              size="small"
              aria-pressed={v.entry === older}
              onClick={() => setChosen(v.entry)}
            >
              {when(v.at)}
            </Button>
            <span>
              {v.person} · <Link to={`/daybook/${v.entry}`}>{v.sentence}</Link>
              {i === 0 ? <span className="faded"> {wording.asItStands}</span> : null}
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
            <BringBack older={one} edit={edit} />
          ) : (
            <Compare before={one} after={beside} />
          )}
        </>
      ) : null}
    </section>
  );
}

/** The fields in which an older version differs from the record as it is edited, each to be brought back by itself. */
function BringBack({ older, edit }: { older: MarcRecord; edit: RecordDraft }) {
  const pairs = compareRecords(older, edit.marc).filter((p) => p.change !== 'same');
  if (pairs.length === 0) return <p className="faded">{wording.theSameAsNow}</p>;
  return (
    <div className="compare">
      {pairs.map((pair, i) => (
        <div key={i} className={`compare-row ${pair.change} bring-back`}>
          <span className="field-tag">{pair.change === 'changed' ? pair.after.tag : pair.field.tag}</span>
          <span>{textOf(pair)}</span>
          <Button size="small" onClick={() => edit.become(fieldBroughtBack(edit.marc, older, pair))}>
            {wording.bringBack}
          </Button>
        </div>
      ))}
    </div>
  );
}

function textOf(pair: FieldPair) {
  if (pair.change === 'changed')
    return pair.parts.map((t, k) =>
      t.change === 'lost' ? (
        <del key={k} className="lost">
          {t.text}
        </del>
      ) : t.change === 'new' ? (
        <ins key={k} className="new">
          {t.text}
        </ins>
      ) : (
        <span key={k}>{t.text}</span>
      ),
    );
  const text = fieldText(pair.field).slice(4);
  return pair.change === 'lost' ? <del className="whole">{text}</del> : <ins className="whole">{text}</ins>;
}
