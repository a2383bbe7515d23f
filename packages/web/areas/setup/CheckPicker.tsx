import type { SetUp } from '@osier/contract';
import { Checkbox, Input } from 'antd';
import { useState } from 'react';
import { KitSection } from '../../parts/form/KitField';
import { setUpWords as wording } from './words';

type Check = SetUp['checks'][number];

/** The checks by group, each on or off; a word finds those that are about it. */
export function CheckPicker({
  checks,
  off,
  disabled,
  onChange,
}: {
  checks: readonly Check[];
  off: readonly string[];
  disabled: boolean;
  onChange: (off: string[]) => void;
}) {
  const [words, setWords] = useState('');
  const wanted = words.trim().toLowerCase();
  const shown = checks.filter((c) => `${c.title} ${c.group} ${c.source}`.toLowerCase().includes(wanted));
  const groups = [...new Set(shown.map((c) => c.group))];
  const flip = (rule: string) =>
    onChange(off.includes(rule) ? off.filter((r) => r !== rule) : [...off, rule]);
  return (
    <>
      <div className="row spread">
        <h2>{wording.checksOfAreOn(checks.length - off.length, checks.length)}</h2>
        <Input.Search
          aria-label={wording.findChecks}
          placeholder={wording.findChecks}
          allowClear
          style={{ width: 260 }}
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
      </div>
      {shown.length === 0 ? <p className="faded">{wording.noCheckMatches}</p> : null}
      {groups.map((group) => (
        <KitSection key={group} title={group}>
          <ul className="check-list">
            {shown
              .filter((c) => c.group === group)
              .map((c) => (
                <li key={c.rule}>
                  <Checkbox
                    title={c.source}
                    checked={!off.includes(c.rule)}
                    disabled={disabled}
                    onChange={() => flip(c.rule)}
                  >
                    {c.title}
                  </Checkbox>
                  <small className="faded">{c.source}</small>
                </li>
              ))}
          </ul>
        </KitSection>
      ))}
    </>
  );
}
