import { api, type RulesTried } from '@osier/contract';
import { CHECK_RULES, ruleProblems, ruleText, type BarcodeRule } from '@osier/core/barcodes';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { problemText } from '../../api/request';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { Mark } from '../../parts/Mark';
import { setUpWords as wording } from './words';

/** A rule to begin with: digits with a check digit. */
const FIRST: BarcodeRule = { of: 'copy', prefix: '', form: '99999999', check: 'none' };

/** What barcodes of the library look like: rules that are typed, and how they fare with those that the copies have. */
export function BarcodeRules({
  rules,
  disabled,
  problem,
  onChange,
}: {
  rules: readonly BarcodeRule[];
  disabled: boolean;
  /** What is wrong with a part, by its dotted name behind `barcodes`. */
  problem: (name: string) => string | undefined;
  onChange: (rules: BarcodeRule[]) => void;
}) {
  const put = (at: number, part: Partial<BarcodeRule>) =>
    onChange(rules.map((r, i) => (i === at ? { ...r, ...part } : r)));
  return (
    <div className="stack">
      <p className="faded">{rules.length ? wording.eachBarcodeFitsARule : wording.anyBarcodeIsTaken}</p>
      {rules.map((rule, i) => {
        const wrong = ruleProblems(rule);
        const told = (field: keyof BarcodeRule) =>
          problem(`${i}.${field}`) ?? wrong.find((p) => p.field === field)?.message;
        return (
          <div
            key={i}
            className="barcode-rule"
            role="group"
            aria-label={wording.barcodeRule(i + 1, wrong.length ? '' : ruleText(rule))}
          >
            <KitGrid isDense>
              <KitField label={wording.barcodesOf} width="short">
                <Select
                  value={rule.of}
                  disabled={disabled}
                  options={[
                    { value: 'copy', label: wording.ofCopies },
                    { value: 'reader', label: wording.ofReaders },
                  ]}
                  onChange={(of) => put(i, { of })}
                />
              </KitField>
              <KitField
                label={wording.beginsWith}
                width="short"
                help={wording.emptyForAny}
                problem={told('prefix')}
              >
                <Input
                  className="mono"
                  value={rule.prefix}
                  disabled={disabled}
                  onChange={(e) => put(i, { prefix: e.target.value })}
                />
              </KitField>
              <KitField label={wording.thenFollow} help={wording.howAFormIsWritten} problem={told('form')}>
                <Input
                  className="mono"
                  value={rule.form}
                  disabled={disabled}
                  onChange={(e) => put(i, { form: e.target.value.toUpperCase() })}
                />
              </KitField>
              <KitField label={wording.checkCharacter} problem={told('check')}>
                <Select
                  value={rule.check}
                  disabled={disabled}
                  options={CHECK_RULES.map((value) => ({ value, label: wording.checkRules[value] }))}
                  onChange={(check) => put(i, { check })}
                />
              </KitField>
            </KitGrid>
            <div className="row spread">
              <span className="faded">{wrong.length ? '' : ruleText(rule)}</span>
              {disabled ? null : (
                <Button size="small" onClick={() => onChange(rules.filter((_, at) => at !== i))}>
                  {wording.deleteTheRule}
                </Button>
              )}
            </div>
          </div>
        );
      })}
      {disabled ? null : (
        <div className="row">
          <Button onClick={() => onChange([...rules, rules.length ? { ...FIRST, form: '' } : FIRST])}>
            {wording.addABarcodeRule}
          </Button>
          <TryRules rules={rules} />
        </div>
      )}
    </div>
  );
}

/** Tries the rules as they are typed on the barcodes of all copies. */
function TryRules({ rules }: { rules: readonly BarcodeRule[] }) {
  const [tried, setTried] = useState<{ of: readonly BarcodeRule[]; found: RulesTried } | null>(null);
  const [problem, setProblem] = useState('');
  const [isTrying, setTrying] = useState(false);
  const run = async () => {
    setTrying(true);
    setProblem('');
    try {
      setTried({ of: rules, found: await call(api.setup.tryBarcodes, { body: { barcodes: [...rules] } }) });
    } catch (e) {
      setProblem(problemText(e));
    }
    setTrying(false);
  };
  const found = tried?.of === rules ? tried.found : null;
  return (
    <>
      <Button loading={isTrying} onClick={() => void run()}>
        {wording.tryOnOurBarcodes}
      </Button>
      <div role="status">
        {problem}
        {found ? (
          <>
            <Mark kind={found.fit === found.of ? 'clear' : 'caution'} />{' '}
            {found.of ? wording.barcodesFit(found.fit, found.of) : wording.noBarcodesYet}
            {found.not.length ? (
              <ul>
                {found.not.map((n) => (
                  <li key={n.code}>
                    <code>{n.code}</code> {n.why}
                  </li>
                ))}
              </ul>
            ) : null}
          </>
        ) : null}
      </div>
    </>
  );
}
