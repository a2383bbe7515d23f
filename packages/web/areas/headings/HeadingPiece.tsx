import { api } from '@osier/contract';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { FieldBody } from '../../parts/FieldBody';

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
      <p className="faded">
        Heading {h.id}, {h.kind}
      </p>
      {h.mergedInto ? (
        <p className="note caution">
          This heading was merged. Its number leads to{' '}
          <Link to={`/headings/${h.mergedInto}`}>heading {h.mergedInto}</Link>.
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
          Merged from{' '}
          {h.mergedFrom.map((m, i) => (
            <span key={m.id}>
              {i ? ', ' : ''}
              <Link to={`/headings/${m.id}`}>{m.id}</Link> {m.text}
            </span>
          ))}
        </p>
      ) : null}
      <h3>{h.usedBy.length === 1 ? '1 record uses it' : `${h.usedBy.length} records use it`}</h3>
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
