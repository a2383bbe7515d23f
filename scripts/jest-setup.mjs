// The server's reading thread is a bundle of its own; tests run the same file.
export default async function setup() {
  const { bundle } = await import('./bundle.mjs');
  await bundle(['server', 'standins', 'cli', 'demo']);
}
