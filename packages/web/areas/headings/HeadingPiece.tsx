import { api } from '@osier/contract';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { FieldBody } from '../../parts/field-editor/FieldBody';
import { headingsWords as wording } from './words';

/** A heading: its authority record, other forms, and the records that use it. */
export function HeadingPiece({ id }: { id: number }) {
  const { data: h, error } = useApi(api.headings.read, { params: { id } });
  if (error) return <p role="alert">{error.message}</p>;
  if (!h) return null;
  return (
    <div className="stack">
      <h2>
        <bdi>{h.text}</bdi>
      </h2>
      <p className="faded">{wording.heading2(h.id, h.kind)}</p>
      {h.mergedInto ? (
        <p className="note caution">
          {wording.thisHeadingWasMergedIts}{' '}
          <Link to={`/headings/${h.mergedInto}`}>{wording.heading3(h.mergedInto)}</Link>.
        </p>
      ) : null}
      <div className="field-view">
        {h.marc.fields.map((f, i) => (
          <div key={i} className="field-row">
            <FieldBody field={f} leader={h.marc.leader} />
          </div>
        ))}
      </div>
      {h.mergedFrom.length ? (
        <p>
          {wording.mergedFrom}{' '}
          {h.mergedFrom.map((m, i) => (
            <span key={m.id}>
              {i ? ', ' : ''}
              <Link to={`/headings/${m.id}`}>{m.id}</Link> {m.text}
            </span>
          ))}
        </p>
      ) : null}
      <h3>{h.usedBy.length === 1 ? wording.n1RecordUsesIt : wording.recordsUseIt(h.usedBy.length)}</h3>
      <ul style={{ margin: 0, paddingLeft: 18 }}>
        {h.usedBy.map((r) => (
          <li key={r.id}>
            <Link to={`/catalogue/${r.id}`}>{r.title}</Link> <span className="faded">{r.year}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
