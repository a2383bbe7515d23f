import { api } from '@osier/contract';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { FieldBody } from '../../parts/field-editor/FieldBody';
import { useMay } from '../../shell/person';
import { ChangeForm } from './ChangeForm';
import { kindName, vocabularyName } from './heading-names';
import { SplitHeading } from './SplitHeading';
import { headingsWords as wording } from './words';

/** A heading: its authority record, other forms, and the records that use it; its form can be changed, and it can be split. */
export function HeadingPiece({ id }: { id: number }) {
  const [doing, setDoing] = useState<'form' | 'split' | null>(null);
  const mayMerge = useMay('merge headings');
  const { data: h, error } = useApi(api.headings.read, { params: { id } });
  if (error) return <p role="alert">{error.message}</p>;
  if (!h) return null;
  return (
    <div className="stack">
      <h2>
        <bdi>{h.text}</bdi>
      </h2>
      <p className="faded">{wording.heading2(h.id, kindName(h.kind), vocabularyName(h.vocabulary))}</p>
      {h.merging ? <p className="note caution">{wording.beingMerged}</p> : null}
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
      {mayMerge && !h.mergedInto && !h.merging ? (
        <div className="row">
          <Button data-key="e" onClick={() => setDoing('form')}>
            {wording.changeForm}
          </Button>
          {h.records > 1 ? (
            <Button data-key="s" onClick={() => setDoing('split')}>
              {wording.split}
            </Button>
          ) : null}
        </div>
      ) : null}
      {doing === 'form' ? <ChangeForm heading={h} onClose={() => setDoing(null)} /> : null}
      {doing === 'split' ? <SplitHeading heading={h} onClose={() => setDoing(null)} /> : null}
      <h3>
        {h.records === 1 ? wording.n1RecordUsesIt : wording.recordsUseIt(h.records.toLocaleString('en-GB'))}
      </h3>
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
