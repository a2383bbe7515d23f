/** Says what is being done, with the time it took. */
export async function step(what, work) {
  process.stdout.write(`· ${what}…\n`);
  const began = Date.now();
  const result = await work();
  const seconds = (Date.now() - began) / 1000;
  if (seconds > 1) process.stdout.write(`  ${what}: done in ${seconds.toFixed(1)} s\n`);
  return result;
}
