import { OUTCOME_NAMES, OUTCOMES, type Outcome } from '@osier/core/matching';
import { Select } from 'antd';

/** Chooses what is done with several records; nothing stays chosen. */
export const DecisionSelect = ({
  label,
  placeholder,
  onChoose,
}: {
  label: string;
  placeholder: string;
  onChoose: (outcome: Outcome) => void;
}) => (
  <Select<Outcome | null>
    aria-label={label}
    size="small"
    value={null}
    placeholder={placeholder}
    popupMatchSelectWidth={false}
    onChange={(o) => o && onChoose(o)}
    options={OUTCOMES.map((o) => ({ value: o, label: OUTCOME_NAMES[o] }))}
  />
);
