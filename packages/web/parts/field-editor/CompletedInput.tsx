import { AutoComplete } from 'antd';
import { useState, type ComponentProps, type ReactNode } from 'react';

/** Something that what is typed may become. */
export interface Completion {
  readonly key: string;
  readonly label: ReactNode;
  readonly take: () => void;
}

/** Whether one of the offers is marked, so that Enter takes it and does not keep the field. */
export const isChoosing = (target: EventTarget): boolean =>
  target instanceof HTMLInputElement &&
  target.getAttribute('aria-expanded') === 'true' &&
  !/(^$|_-1$)/.test(target.getAttribute('aria-activedescendant') ?? '');

/** A text with offers below it while it is typed. Free text is never changed by them: only what is chosen is taken. */
export function CompletedInput({
  completions,
  onChange,
  onFocus,
  onBlur,
  value,
  ...rest
}: Omit<ComponentProps<'input'>, 'onChange' | 'value'> & {
  value: string;
  completions: readonly Completion[];
  onChange: (value: string) => void;
}) {
  const [isWanted, setWanted] = useState(false);
  return (
    <AutoComplete
      className="completed-input"
      variant="borderless"
      value={value}
      open={isWanted && completions.length > 0}
      onOpenChange={(open) => !open && setWanted(false)}
      defaultActiveFirstOption={false}
      popupMatchSelectWidth={false}
      options={completions.map(({ key, label }) => ({ value: key, label }))}
      onSelect={(key: string) => {
        completions.find((c) => c.key === key)?.take();
        setWanted(false);
      }}
      onSearch={(text) => {
        setWanted(true);
        onChange(text);
      }}
    >
      <input
        {...rest}
        onFocus={onFocus}
        onBlur={(e) => {
          setWanted(false);
          onBlur?.(e);
        }}
      />
    </AutoComplete>
  );
}
