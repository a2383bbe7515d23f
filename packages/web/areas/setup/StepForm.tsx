import { api } from '@osier/contract';
import { DEFAULT_HOUSE } from '@osier/core/house';
import {
  STEP_KINDS,
  stepKind,
  stepProblems,
  stepSentence,
  type Step,
  type StepName,
} from '@osier/core/recipes';
import { Button, Drawer, Select } from 'antd';
import { useState } from 'react';
import { useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { Mark } from '../../parts/Mark';
import { StepConditions } from './StepConditions';
import { StepPartField } from './StepPartField';
import { setUpWords as wording } from './words';

const KINDS = STEP_KINDS.map(({ step, name }) => ({ value: step, label: name }));
const firstOf = (step: StepName): Step => STEP_KINDS.find((k) => k.step === step)!.first;

interface Props {
  readonly title: string;
  /** The step as it is; null for a new one. */
  readonly step: Step | null;
  readonly onKeep: (step: Step) => Promise<unknown>;
  readonly onClose: () => void;
}

/** One step of a recipe, filled in; the sentence that it comes to is shown as it is written. */
export function StepForm({ title, step: before, onKeep, onClose }: Props) {
  const house = useApi(api.setup.read).data?.house.value ?? DEFAULT_HOUSE;
  const [step, setStep] = useState<Step>(before ?? firstOf('replace-text'));
  const [tried, setTried] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  const form = stepKind(step);
  const problems = [...stepProblems(step)];
  const keep = async () => {
    setTried(true);
    if (problems.length) return;
    try {
      await onKeep(step);
      onClose();
    } catch (e) {
      setFailed(problemText(e));
    }
  };
  const set = (key: string, value: unknown) => {
    const next = { ...step, [key]: value } as Record<string, unknown>;
    if (value === undefined) delete next[key];
    setStep(next as unknown as Step);
  };
  return (
    <Drawer
      open
      title={title}
      onClose={onClose}
      size="min(560px, 96vw)"
      footer={
        <div className="row spread">
          <span role="alert" className="field-problem">
            {failed ?? (tried ? problems[0] : '')}
          </span>
          <span className="row">
            <Button onClick={onClose}>{wording.cancel}</Button>
            <Button type="primary" onClick={() => void keep()}>
              {wording.saveStep}
            </Button>
          </span>
        </div>
      }
    >
      <form
        className="step-form"
        onSubmit={(e) => {
          e.preventDefault();
          void keep();
        }}
      >
        <p className="review-sentence" aria-live="polite">
          {problems.length ? <Mark kind="caution" name={wording.notFinished} /> : null}{' '}
          {stepSentence(step, house)}
        </p>
        <KitField label={wording.step}>
          <Select
            showSearch={{ optionFilterProp: 'label' }}
            value={step.step}
            options={KINDS}
            onChange={(kind: StepName) =>
              setStep({ ...firstOf(kind), ...(step.when && { when: step.when }) })
            }
          />
        </KitField>
        <KitGrid>
          {form.parts.map((part) => (
            <StepPartField
              key={`${step.step} ${part.key}`}
              part={part}
              value={(step as unknown as Record<string, unknown>)[part.key]}
              onChange={(v) => set(part.key, v)}
            />
          ))}
        </KitGrid>
        <StepConditions when={step.when} onChange={(when) => set('when', when)} />
        <Button type="text" size="small" htmlType="submit" hidden aria-hidden tabIndex={-1} />
      </form>
    </Drawer>
  );
}
