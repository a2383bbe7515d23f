import { PNG } from 'pngjs';

const [WIDTH, HEIGHT] = [120, 180];

/** A made-up cover as a PNG: paper colours, a band for the title and stripes, all of them from the digits of an ISBN. */
export function coverOf(isbn: string): Buffer {
  const digits = [...isbn.replace(/\D/g, '').padEnd(13, '0')].map(Number);
  const colour = (from: number, dark: number) =>
    [0, 1, 2].map((i) => Math.round((40 + (digits[from + i] ?? 0) * 20) * dark));
  const [paper, band, stripe] = [colour(4, 1), colour(7, 0.45), colour(9, 0.8)];
  const width = 4 + (digits[11] ?? 0);
  const png = new PNG({ width: WIDTH, height: HEIGHT });
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const inBand = y > 28 && y < 64 && x > 10 && x < WIDTH - 10;
      const inStripe = y > 90 && Math.floor((x + y) / width) % 3 === 0;
      png.data.set([...(inBand ? band : inStripe ? stripe : paper), 255], (y * WIDTH + x) * 4);
    }
  return PNG.sync.write(png);
}
