/** @jest-environment jsdom */
import { scanListener } from './use-scanner';

/** Presses keys on the parts of a page, each so many milliseconds after the one before. */
function page(markup: string) {
  document.body.innerHTML = markup;
  const codes: string[] = [];
  const listen = scanListener((code) => codes.push(code));
  let at = 1000;
  return {
    codes,
    part: (id: string) => document.getElementById(id)!,
    field: (id: string) => document.getElementById(id) as HTMLInputElement,
    /** Whether the key was left to the page. */
    press(id: string, key: string, gap: number): boolean {
      const event = new KeyboardEvent('keydown', { key, cancelable: true, bubbles: true });
      Object.defineProperty(event, 'timeStamp', { value: (at += gap) });
      Object.defineProperty(event, 'target', { value: document.getElementById(id) });
      listen(event);
      const field = document.getElementById(id);
      if (!event.defaultPrevented && key.length === 1 && field instanceof HTMLInputElement)
        field.value += key;
      return !event.defaultPrevented;
    },
  };
}

test('Tab goes on from a button, however fast the keys before it came', () => {
  const p = page('<input id="to" /><button id="ask"></button>');
  for (const key of '677') p.press('to', key, 5);
  expect(p.press('to', 'Tab', 30)).toBe(true);
  for (let i = 0; i < 5; i++) expect(p.press('ask', 'Tab', 30)).toBe(true);
  expect(p.press('ask', 'ArrowDown', 30)).toBe(true);
  expect(p.field('to').value).toBe('677');
});

test('a scan on a button presses nothing and is handed on', () => {
  const p = page('<button id="ask"></button>');
  const left = [...'31204000500001'].map((key) => p.press('ask', key, 8));
  expect(left.slice(0, 2)).toEqual([true, true]);
  expect(left.slice(2)).toEqual(left.slice(2).map(() => false));
  expect(p.press('ask', 'Enter', 8)).toBe(false);
  expect(p.codes).toEqual(['31204000500001']);
});

test('a scan into a text is taken out of it again, of the text it went into', () => {
  const p = page('<input id="a" value="half" /><input id="b" value="whole" />');
  for (const key of 'abc') p.press('a', key, 8);
  // With the mouse into another field.
  [...'31204000500001'].forEach((key, i) => p.press('b', key, i ? 8 : 700));
  p.press('b', 'Enter', 8);
  expect(p.codes).toHaveLength(1);
  expect(p.field('a').value).toBe('halfabc');
  expect(p.field('b').value).toBe('whole');
});
