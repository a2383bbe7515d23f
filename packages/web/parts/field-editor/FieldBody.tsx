import type { Finding } from '@osier/core/checks';
import { eastAsianOf, isControl, type Field } from '@osier/core/marc';
import { Button } from 'antd';
import { useState, type ReactNode } from 'react';
import { useFormat } from '../format';
import { stretches } from './stretches';
import { fieldWords as wording } from './words';

const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufefc]/;

/** Tag, indicators and content of one field; fixed fields as labelled positions with their meaning. */
export function FieldBody({
  field,
  leader,
  language = '',
  findings = [],
}: {
  field: Field;
  leader: string;
  /** Of the record, as 008 has it: some characters are drawn by it. */
  language?: string;
  findings?: readonly Finding[];
}) {
  const format = useFormat();
  const kind = format?.formatOf(leader);
  const tag =
    field.tag === '880' && !isControl(field)
      ? (field.subfields.find((s) => s.code === '6')?.value ?? '').slice(0, 3)
      : field.tag;
  const name = field.tag === 'LDR' ? wording.leader : format?.fieldName(tag, kind);
  return (
    <>
      <span className="field-tag" title={name}>
        {field.tag}
        <span className="unseen">{name}</span>
      </span>
      {isControl(field) ? (
        <>
          <span className="field-inds" />
          <FixedContent field={field} leader={leader} findings={findings} />
        </>
      ) : (
        <>
          <span className="field-inds">
            {([1, 2] as const).map((n) => {
              const value = n === 1 ? field.ind1 : field.ind2;
              return (
                <span key={n} className="ind" title={format?.indicatorMeaning(tag, n, value, kind)}>
                  {value === ' ' ? <i aria-label={wording.blank}>·</i> : value}
                </span>
              );
            })}
          </span>
          <span
            className="field-text"
            lang={eastAsianOf(field, language)}
            dir={RIGHT_TO_LEFT.test(field.subfields.map((s) => s.value).join('')) ? 'rtl' : undefined}
          >
            {field.subfields.map((s, i) => (
              <span key={i}>
                <span className="code" title={format?.subfieldName(tag, s.code, kind)}>
                  {s.code}
                </span>
                {underlined(
                  s.value,
                  findings.filter((f) => f.where.subfield === i),
                )}{' '}
              </span>
            ))}
          </span>
        </>
      )}
    </>
  );
}

/** Text with what each finding concerns underlined; where two overlap, the first one is. */
function underlined(text: string, findings: readonly Finding[]): ReactNode {
  return (
    <bdi>
      {stretches(text, findings).map(({ part, finding }, i) =>
        finding ? (
          <u key={i} className={`found ${finding.severity}`} title={finding.message}>
            {part}
          </u>
        ) : (
          part
        ),
      )}
    </bdi>
  );
}

/** Leader, 006, 007 and 008 as labelled positions; other control fields as they are. */
function FixedContent({
  field,
  leader,
  findings,
}: {
  field: Field;
  leader: string;
  findings: readonly Finding[];
}) {
  const format = useFormat();
  const [open, setOpen] = useState(false);
  if (!isControl(field)) return null;
  const positions =
    format && /^(LDR|006|007|008)$/.test(field.tag)
      ? format.readPositions(field.tag, field.value, leader)
      : [];
  return (
    <span className="field-text fixed">
      <span className="fixed-value">
        {underlined(
          field.value.replaceAll(' ', '·'),
          findings.filter((f) => f.where.start !== undefined),
        )}
      </span>
      {positions.length ? (
        <Button size="small" className="fix" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? wording.codes : wording.decoded}
        </Button>
      ) : null}
      {open ? (
        <span className="positions">
          {positions.map((p) => (
            <span key={p.from}>
              <b>{p.name}</b> {p.meaning ?? <code>{p.value.replaceAll(' ', '·')}</code>}
            </span>
          ))}
        </span>
      ) : null}
    </span>
  );
}
