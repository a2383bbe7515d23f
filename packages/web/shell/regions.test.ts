/** @jest-environment jsdom */
import { keysOfArea } from './keys';
import { goToRegion } from './regions';

test('F6 goes from the scan line to the list, to the piece, and round; past what is not there', () => {
  document.body.innerHTML =
    '<div class="scan-line"><input id="scan"></div><div class="work-list-pane"><div role="listbox" id="list" tabindex="0"></div></div><div class="work-piece"><button disabled>No</button><button id="piece">Yes</button></div>';
  // Nothing is laid out here: what is hidden is told by its place alone.
  Object.defineProperty(HTMLElement.prototype, 'offsetParent', {
    configurable: true,
    get: () => document.body,
  });
  const went = (step: 1 | -1) => {
    goToRegion(step);
    return document.activeElement?.id;
  };
  expect([went(1), went(1), went(1), went(1)]).toEqual(['scan', 'list', 'piece', 'scan']);
  expect([went(-1), went(-1)]).toEqual(['piece', 'list']);
  document.querySelector('.work-piece')!.remove();
  expect(went(1)).toBe('scan');
});

test('an area has its own keys before those that work everywhere', () => {
  expect(keysOfArea('/stocktake/3').map(([key]) => key)).toContain('n');
  expect(keysOfArea('/catalogue/10').map(([key]) => key)).toContain('f');
  expect(keysOfArea('/deliveries')).toEqual([]);
});
