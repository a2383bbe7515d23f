import { api, type HouseBody } from '@osier/contract';
import {
  AUTHOR_MARKS,
  callNumberRuleProblems,
  callNumberText,
  FIRST_RULE,
  MARKED_BY,
  offerCallNumbers,
  RULE_WORKS,
  SCHEMES,
  type CallNumberRule,
  type HouseStyle,
} from '@osier/core/callnumbers';
import { Button, Checkbox, Input, InputNumber, Select } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { problemText } from '../../api/request';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { PickMany } from '../../parts/form/PickMany';
import { callNumberRuleWords } from './call-number-rule-words';
import { setUpWords } from './words';
import { useSetUp } from './use-set-up';

const wording = { ...setUpWords, ...callNumberRuleWords };

/** How call numbers are made at some places, for some types and works: rules in their order, and what they make of a record. */
export function CallNumberRules({
  rules,
  house,
  disabled,
  problem,
  onChange: onRules,
}: {
  rules: readonly CallNumberRule[];
  house: HouseStyle;
  disabled: boolean;
  /** What is wrong with a part, by its dotted name behind `callNumbers`. */
  problem: (name: string) => string | undefined;
  onChange: (rules: HouseBody['callNumbers']) => void;
}) {
  const onChange = (next: readonly CallNumberRule[]) =>
    onRules(
      next.map(({ branches, locations, types, ...rule }) => ({
        ...rule,
        ...{ branches: [...branches], locations: [...locations], types: [...types] },
      })),
    );
  return (
    <div className="stack">
      <p className="faded">{rules.length ? wording.callNumberRulesSay : wording.noCallNumberRule}</p>
      {rules.map((rule, i) => (
        <RuleFields
          key={i}
          rule={rule}
          at={i}
          disabled={disabled}
          problem={(name) =>
            problem(`${i}.${name}`) ?? callNumberRuleProblems(rule).find((p) => p.field === name)?.message
          }
          onPut={(part) => onChange(rules.map((r, n) => (n === i ? { ...r, ...part } : r)))}
          onRemove={() => onChange(rules.filter((_, n) => n !== i))}
          onUp={() => onChange([...rules.slice(0, i - 1), rule, rules[i - 1]!, ...rules.slice(i + 1)])}
        />
      ))}
      {disabled ? null : (
        <div className="row">
          <Button onClick={() => onChange([...rules, FIRST_RULE])}>{wording.addACallNumberRule}</Button>
          <TryOnRecord house={house} />
        </div>
      )}
    </div>
  );
}

function RuleFields({
  rule,
  at,
  disabled,
  problem,
  onPut,
  onRemove,
  onUp,
}: {
  rule: CallNumberRule;
  at: number;
  disabled: boolean;
  problem: (name: keyof CallNumberRule) => string | undefined;
  onPut: (part: Partial<CallNumberRule>) => void;
  onRemove: () => void;
  onUp: () => void;
}) {
  const lists = useSetUp()?.lists.value;
  const text = (key: 'name' | 'prefix' | 'suffix', label: string) => (
    <KitField label={label} width={key === 'name' ? undefined : 'short'} problem={problem(key)}>
      <Input
        value={rule[key]}
        disabled={disabled}
        {...(key === 'name' ? {} : { className: 'mono' })}
        onChange={(e) => onPut({ [key]: e.target.value })}
      />
    </KitField>
  );
  const count = (key: 'decimals' | 'markLength', label: string, min: number, max: number) => (
    <KitField label={label} width="short" problem={problem(key)}>
      <InputNumber
        min={min}
        max={max}
        controls={false}
        style={{ width: '100%' }}
        value={rule[key]}
        disabled={disabled}
        onChange={(v) => onPut({ [key]: v ?? min })}
      />
    </KitField>
  );
  const many = (key: 'branches' | 'locations' | 'types', label: string) => (
    <KitField label={label} help={wording.emptyForAll} problem={problem(key)}>
      <PickMany
        list={lists?.[key] ?? []}
        value={rule[key]}
        disabled={disabled}
        onChange={(codes) => onPut({ [key]: codes })}
      />
    </KitField>
  );
  const choice = <K extends 'works' | 'scheme' | 'mark' | 'markedBy'>(
    key: K,
    label: string,
    options: readonly CallNumberRule[K][],
    names: Readonly<Record<CallNumberRule[K], string>>,
  ) => (
    <KitField label={label} problem={problem(key)}>
      <Select
        value={rule[key]}
        disabled={disabled}
        options={options.map((value) => ({ value, label: names[value] }))}
        onChange={(value: CallNumberRule[K]) => onPut({ [key]: value })}
      />
    </KitField>
  );
  return (
    <div className="barcode-rule" role="group" aria-label={wording.callNumberRule(at + 1, rule.name)}>
      <KitGrid isDense>
        {text('name', wording.nameOfTheRule)}
        {many('branches', wording.forBranches)}
        {many('locations', wording.forLocations)}
        {many('types', wording.forTypes)}
        {choice('works', wording.forWorks, RULE_WORKS, wording.works)}
        {choice('scheme', wording.scheme, SCHEMES, wording.schemes)}
        <KitField label={wording.classOfTheRule} problem={problem('hasClass')}>
          <Select
            value={rule.hasClass}
            disabled={disabled}
            options={[
              { value: true, label: wording.classFromTheRecord },
              { value: false, label: wording.prefixInItsPlace },
            ]}
            onChange={(hasClass) => onPut({ hasClass })}
          />
        </KitField>
        {text('prefix', wording.prefix)}
        {rule.hasClass && rule.scheme === 'dewey' ? count('decimals', wording.decimals, 0, 12) : null}
        {choice('mark', wording.authorMark, AUTHOR_MARKS, wording.authorMarks)}
        {rule.mark === 'none' ? null : (
          <>
            {choice('markedBy', wording.markedBy, MARKED_BY, wording.marksFrom)}
            {count('markLength', wording.lengthOfTheMark, 1, 8)}
          </>
        )}
        {text('suffix', wording.suffix)}
      </KitGrid>
      <div className="row spread">
        <span className="row">
          <Checkbox
            checked={rule.hasYear}
            disabled={disabled}
            onChange={(e) => onPut({ hasYear: e.target.checked })}
          >
            {wording.yearOfPublication}
          </Checkbox>
          <Checkbox
            checked={rule.isMcAsMac}
            disabled={disabled}
            onChange={(e) => onPut({ isMcAsMac: e.target.checked })}
          >
            {wording.mcAsMac}
          </Checkbox>
        </span>
        {disabled ? null : (
          <span className="row">
            {at > 0 ? (
              <Button size="small" onClick={onUp}>
                {wording.moveUp}
              </Button>
            ) : null}
            <Button size="small" onClick={onRemove}>
              {wording.deleteTheRule}
            </Button>
          </span>
        )}
      </div>
    </div>
  );
}

/** What the rules as they are typed make of a record of the catalogue. */
function TryOnRecord({ house }: { house: HouseStyle }) {
  const [tried, setTried] = useState<readonly string[]>([]);
  const run = async (id: number) => {
    try {
      const { marc } = await call(api.records.read, { params: { id } });
      const made = offerCallNumbers(marc, house);
      const rules = house.callNumbers.flatMap((rule) => {
        const place = { branch: rule.branches[0], location: rule.locations[0], type: rule.types[0] };
        return offerCallNumbers(marc, house, place).filter((o) => o.rule === rule.name);
      });
      const all = [...rules, ...made.filter((o) => o.rule === '')];
      setTried(
        all.length
          ? all.map((o) => `${o.rule ? `${o.rule}: ` : ''}${wording.triedRule(callNumberText(o), o.from)}`)
          : [wording.noCallNumberMade],
      );
    } catch (e) {
      setTried([problemText(e)]);
    }
  };
  return (
    <>
      <Input.Search
        aria-label={wording.tryOnARecord}
        placeholder={wording.tryOnARecord}
        style={{ width: '16rem' }}
        onSearch={(v) => /^\d+$/.test(v.trim()) && void run(Number(v))}
      />
      <ul role="status" className="tried">
        {tried.map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
    </>
  );
}
