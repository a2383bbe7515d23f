/** The parts of the frame that F6 goes through, each by what takes the focus in it, the first choice first. */
const REGIONS: readonly (readonly [region: string, ...focus: string[]])[] = [
  ['.scan-line', 'input'],
  ['.work-list-pane', '[role="listbox"]', '[tabindex="0"], input, button'],
  ['.work-piece', '.field-row', '[tabindex="0"], input, button:not(:disabled), a[href]'],
];
const isSeen = (e: HTMLElement) => typeof e.checkVisibility !== 'function' || e.checkVisibility();

/** Moves the focus to the next part of the frame that is on screen, or to the one before. */
export function goToRegion(step: 1 | -1): void {
  const there = REGIONS.flatMap(([region, ...focus]) => {
    const part = document.querySelector<HTMLElement>(region);
    const target = focus
      .flatMap((wanted) => [...(part?.querySelectorAll<HTMLElement>(wanted) ?? [])])
      .find(isSeen);
    return part && target && part.offsetParent !== null ? [{ part, target }] : [];
  });
  const at = there.findIndex(({ part }) => part.contains(document.activeElement));
  const from = at < 0 && step < 0 ? 0 : at;
  there[(from + step + there.length) % there.length]?.target.focus();
}
