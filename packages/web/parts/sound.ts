/** What is to be heard and felt: one for each outcome of a scan, and one for a look at the screen. */
export type Signal =
  | 'in place'
  | 'kept'
  | 'undone'
  | 'scanned before'
  | 'look'
  | 'out-of-order'
  | 'should-not-be-here'
  | 'unknown';

/** Tones as when they begin (seconds) and how high they are (hertz); how long the device shakes, in milliseconds. */
const SIGNALS: Readonly<
  Record<
    Signal,
    { readonly tones: readonly (readonly [number, number])[]; readonly shake: number | number[] }
  >
> = {
  'in place': { tones: [[0, 880]], shake: 30 },
  kept: { tones: [[0, 660]], shake: 30 },
  undone: { tones: [[0, 660]], shake: 30 },
  'scanned before': {
    tones: [
      [0, 660],
      [0.12, 660],
    ],
    shake: [30, 40, 30],
  },
  look: {
    tones: [
      [0, 440],
      [0.14, 550],
    ],
    shake: [60, 60, 60],
  },
  'out-of-order': {
    tones: [
      [0, 440],
      [0.14, 330],
    ],
    shake: [60, 60, 60],
  },
  'should-not-be-here': {
    tones: [
      [0, 220],
      [0.16, 180],
    ],
    shake: 250,
  },
  unknown: {
    tones: [
      [0, 180],
      [0.16, 180],
      [0.32, 180],
    ],
    shake: [120, 60, 120],
  },
};

let context: AudioContext | null = null;

/** Sounds a signal and shakes the device. Silent where the browser allows no sound yet. */
export function chime(signal: Signal): void {
  const { tones, shake } = SIGNALS[signal];
  try {
    if ('vibrate' in navigator) navigator.vibrate(shake);
    context ??= new AudioContext();
    for (const [start, pitch] of tones) {
      const tone = context.createOscillator();
      const volume = context.createGain();
      tone.frequency.value = pitch;
      volume.gain.value = 0.08;
      tone.connect(volume).connect(context.destination);
      tone.start(context.currentTime + start);
      tone.stop(context.currentTime + start + 0.11);
    }
  } catch {
    // No sound here; the screen says it all.
  }
}
