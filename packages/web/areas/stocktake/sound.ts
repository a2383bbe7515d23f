let context: AudioContext | null = null;

/** A short high tone for good, two low ones for a look. Silent where the browser allows no sound yet. */
export function chime(good: boolean): void {
  try {
    context ??= new AudioContext();
    for (const [start, pitch] of good
      ? [[0, 880]]
      : [
          [0, 220],
          [0.16, 180],
        ]) {
      const tone = context.createOscillator();
      const volume = context.createGain();
      tone.frequency.value = pitch!;
      volume.gain.value = 0.08;
      tone.connect(volume).connect(context.destination);
      tone.start(context.currentTime + start!);
      tone.stop(context.currentTime + start! + 0.11);
    }
  } catch {
    // No sound here; the screen says it all.
  }
}
