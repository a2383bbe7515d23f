import { api, type SetUp } from '@osier/contract';
import { call } from '../../api/call';
import { Button, Checkbox, Input, InputNumber, Select } from 'antd';
import { useState } from 'react';
import { refresh } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { PickMany } from '../../parts/form/PickMany';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';

/** The house rules, and which checks are on. */
export function HouseForm({ data }: { data: SetUp }) {
  const [house, setHouse] = useState(data.house.value);
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const mayChange = useMay('set up');
  const { say, complain } = useShell();
  const save = async () => {
    try {
      const done = await call(api.setup.saveHouse, { body: { version: data.house.version, ...house } });
      setProblem(null);
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      complain(problemText(e));
    }
  };
  const number = (key: 'classDecimals' | 'cutterLetters' | 'jumpLength', label: string, max: number) => (
    <label>
      {label}
      <InputNumber
        aria-label={label}
        min={key === 'jumpLength' ? 2 : 0}
        max={max}
        value={house[key]}
        disabled={!mayChange}
        onChange={(v) => setHouse({ ...house, [key]: v ?? 0 })}
      />
    </label>
  );
  const tags = (key: 'droppedSubdivisions' | 'protectedFields' | 'thesauri', label: string, help: string) => (
    <label className="wide">
      {label}
      <PickMany
        label={label}
        list={null}
        placeholder={help}
        value={house[key]}
        disabled={!mayChange}
        onChange={(value) => setHouse({ ...house, [key]: value })}
      />
    </label>
  );
  const flip = (rule: string) =>
    setHouse({
      ...house,
      checksOff: house.checksOff.includes(rule)
        ? house.checksOff.filter((r) => r !== rule)
        : [...house.checksOff, rule],
    });
  return (
    <div className="stack">
      {problem ? (
        <p className="note stop" role="alert">
          {problem.message}
        </p>
      ) : null}
      <div className="form-grid level">
        {number('classDecimals', 'Decimals kept of a class', 12)}
        {number('cutterLetters', 'Letters of the author mark', 6)}
        {number('jumpLength', 'Unscanned copies in a row that make a jump', 200)}
        <label>
          ISBD punctuation between areas
          <Select
            aria-label="ISBD punctuation between areas"
            value={house.punctuation}
            disabled={!mayChange}
            onChange={(punctuation) => setHouse({ ...house, punctuation })}
            options={[
              { value: 'kept', label: 'kept' },
              { value: 'left out', label: 'left out' },
            ]}
          />
        </label>
        <label>
          First word after an initial article
          <Select
            aria-label="First word after an initial article"
            value={house.wordAfterArticle}
            disabled={!mayChange}
            onChange={(wordAfterArticle) => setHouse({ ...house, wordAfterArticle })}
            options={[
              { value: 'small', label: 'small letter' },
              { value: 'capital', label: 'capital letter' },
              { value: 'as it comes', label: 'as it comes' },
            ]}
          />
        </label>
        <label>
          Currency of prices (ISO 4217)
          <Input
            aria-label="Currency of prices (ISO 4217)"
            value={house.currency}
            maxLength={3}
            disabled={!mayChange}
            onChange={(e) => setHouse({ ...house, currency: e.target.value })}
          />
        </label>
        {tags('droppedSubdivisions', 'Subdivisions deleted in this library', 'type one, then Enter')}
        {tags('thesauri', 'Subject systems used here', 'codes of 6XX $2, such as lcsh; none for all')}
        {tags('protectedFields', 'Protected local fields', 'three digits, a point for any digit: 59.')}
      </div>
      <h2>
        Checks: {data.checks.length - house.checksOff.length} of {data.checks.length} are on
      </h2>
      <div className="check-groups">
        {[...new Set(data.checks.map((c) => c.group))].map((group) => (
          <fieldset key={group} className="check-group">
            <legend>{group}</legend>
            <ul className="check-list">
              {data.checks
                .filter((c) => c.group === group)
                .map((c) => (
                  <li key={c.rule}>
                    <Checkbox
                      title={c.source}
                      checked={!house.checksOff.includes(c.rule)}
                      disabled={!mayChange}
                      onChange={() => flip(c.rule)}
                    >
                      {c.title}
                    </Checkbox>
                    <small className="faded">{c.source}</small>
                  </li>
                ))}
            </ul>
          </fieldset>
        ))}
      </div>
      {mayChange ? (
        <div className="save-bar">
          <Button type="primary" onClick={() => void save()}>
            Save the house rules
          </Button>
        </div>
      ) : (
        <p className="faded">Only the head changes these.</p>
      )}
    </div>
  );
}
