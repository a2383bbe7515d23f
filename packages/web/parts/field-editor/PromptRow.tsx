import type { Prompt } from '@osier/core/editing';
import { useFormat } from '../format';
import { fieldWords as wording } from './words';

/** A field that a starter asks for and the record has not got yet: Enter opens it. */
export function PromptRow({ prompt, n }: { prompt: Prompt; n: number }) {
  const format = useFormat();
  const { tag, ind1, ind2, subfields, wanted, prompt: said } = prompt.asked;
  const name = format?.fieldName(tag) ?? '';
  return (
    <div
      className={`field-row asked ${wanted}`}
      role="button"
      tabIndex={0}
      data-prompt={n}
      aria-label={wording.fillIn(tag, said || name)}
    >
      <span className="field-tag">{tag}</span>
      <span className="field-inds">
        {[ind1, ind2].map((value, i) => (
          <span key={i} className="ind">
            {value === ' ' ? <i>·</i> : value}
          </span>
        ))}
      </span>
      <span className="field-text faded">
        {subfields.map((s, i) => (
          <span key={i} className="code">
            {s.code}
          </span>
        ))}{' '}
        {said || name}
      </span>
      <div className="field-side faded">{wanted === 'required' ? wording.required : ''}</div>
    </div>
  );
}
