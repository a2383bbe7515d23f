/** @jest-environment jsdom */
import { nearestFocus } from './kept-focus';

const build = (html: string) => {
  document.body.innerHTML = html;
  const at = (id: string) => document.getElementById(id)!;
  return at;
};

test('the focus goes to the nearest thing that is still there', () => {
  const at = build(
    '<main id="m"><ul id="l"><li id="r" tabindex="0"><button id="b">Fix</button></li></ul><button id="o">Other</button></main>',
  );
  const chain = ['b', 'r', 'l', 'm'].map(at);
  expect(nearestFocus(chain)?.id).toBe('b');
  at('b').remove();
  // The row around it takes the focus itself.
  expect(nearestFocus(chain)?.id).toBe('r');
  at('r').remove();
  // Nothing is left in the list.
  expect(nearestFocus(chain)?.id).toBe('o');
});
