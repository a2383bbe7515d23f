import { runningText } from '../../marc';
import { fold } from '../../text';
import { look, remove, type Check } from '../finding';
import { NAME_TAGS, wholeField, type Placed } from '../view';

const NAME_PARTS = 'abcdnqt';

export const sameNameTwice: Check = {
  rule: 'duplicate-name',
  title: 'Duplicate name in 1XX and 7XX',
  group: 'Names',
  source: 'common practice, no source',
  needs: NAME_TAGS,
  run({ names }, tell) {
    if (names.length < 2 || !someAlike(names)) return;
    const seen = new Map<string, { text: string; parts: string }>();
    for (const p of names) {
      const name = runningText(p.field, NAME_PARTS);
      const key = `${p.field.tag.slice(1)} ${fold(name)}`;
      const roles = fold(runningText(p.field, 'ej4klmorsxi'));
      const before = seen.get(key);
      if (before && (before.parts === roles || roles === ''))
        tell({
          severity: 'warning',
          where: wholeField(p),
          message: `Duplicate name: “${name.replace(/[,.\s]+$/, '')}” is already in the record as “${before.text.replace(/[,.\s]+$/, '')}”.`,
          fix: look('Delete the duplicate', remove(p)),
        });
      else if (!before) seen.set(key, { text: name, parts: roles });
    }
  },
};

/** Whether two names begin alike: cheaper than their folded forms. */
function someAlike(names: readonly Placed[]): boolean {
  const starts = new Set<string>();
  for (const { field } of names)
    starts.add((field.subfields.find((s) => s.code === 'a')?.value ?? '').slice(0, 2).toLowerCase());
  return starts.size < names.length;
}
