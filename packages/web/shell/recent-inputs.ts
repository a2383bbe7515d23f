const KEPT = 10;
const keyOf = (person: number) => `osier-inputs-${person}`;

/** What a person gave the scan line last on this computer, the newest first. */
export function recentInputs(person: number): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(keyOf(person)) ?? '[]');
    return Array.isArray(kept) ? kept.filter((k) => typeof k === 'string').slice(0, KEPT) : [];
  } catch {
    return [];
  }
}

/** Keeps an input as the newest. */
export function keepInput(person: number, text: string): void {
  const others = recentInputs(person).filter((t) => t !== text);
  localStorage.setItem(keyOf(person), JSON.stringify([text, ...others].slice(0, KEPT)));
}
