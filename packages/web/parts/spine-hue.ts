/** A hue for a class, so that neighbours of one class look alike. */
export function spineHue(callNumber: string): number {
  const number = Number(/\d+(\.\d+)?/.exec(callNumber)?.[0] ?? 0);
  return Math.round((number * 997) % 360);
}
