import { CHECKS } from './all';
import { RENAMED_RULES, ruleNow } from './renamed-rules';

const rules = new Set(CHECKS.map((c) => c.rule));

test('what was renamed leads to a check that there is, and no name is used again', () => {
  for (const [was, is] of Object.entries(RENAMED_RULES)) {
    expect([was, rules.has(was)]).toEqual([was, false]);
    expect([is, rules.has(is)]).toEqual([is, true]);
  }
  expect(new Set(Object.values(RENAMED_RULES)).size).toBe(Object.keys(RENAMED_RULES).length);
});
test('other names stay, also those of things that every object has', () => {
  expect(['isbn-13-missing', 'constructor', ''].map(ruleNow)).toEqual(['isbn-13-missing', 'constructor', '']);
});
