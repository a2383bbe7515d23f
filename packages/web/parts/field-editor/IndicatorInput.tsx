import { memo } from 'react';
import { useFormat } from '../format';
import { CompletedInput } from './CompletedInput';
import { fieldWords as wording } from './words';

/** An indicator: one character, with the values that the format gives it and their meanings. */
export const IndicatorInput = memo(function IndicatorInput({
  tag,
  which,
  value,
  onChange,
}: {
  tag: string;
  which: 1 | 2;
  value: string;
  onChange: (value: string) => void;
}) {
  const format = useFormat();
  const definition = format?.fieldDefinition(tag)?.indicators?.[which - 1];
  const values = definition?.values ?? {};
  const isDefined = definition && !/^undefined$/i.test(definition.name);
  return (
    <label className="ind-edit">
      <span>{wording.indicator(which === 1 ? wording.first : wording.second)}</span>
      <CompletedInput
        className="ind"
        maxLength={1}
        value={value}
        completions={Object.entries(values).map(([v, meaning]) => ({
          key: v,
          label: `${v === ' ' ? wording.blank : v}  ${meaning}`,
          take: () => onChange(v),
        }))}
        onChange={onChange}
        onFocus={(e) => e.target.select()}
      />
      <small>{(isDefined && format?.indicatorMeaning(tag, which, value || ' ')) || wording.notDefined}</small>
    </label>
  );
});
