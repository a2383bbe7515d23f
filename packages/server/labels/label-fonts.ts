import fontkit from '@pdf-lib/fontkit';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { PDFDocument, PDFFont } from 'pdf-lib';

/** The scripts of the face that labels are set in, the most frequent first; each is a file of its own. */
const SCRIPTS = ['latin', 'latin-ext', 'greek', 'cyrillic', 'vietnamese'] as const;
const POINT = 25.4 / 72;

/** A stretch of text in one font, from where it begins in points. */
export interface FontRun {
  readonly text: string;
  readonly font: PDFFont;
  readonly x: number;
}

/** The fonts of a document of labels. */
export interface LabelFonts {
  /** Whether a character can be printed. */
  has(char: string): boolean;
  /** Width of a text in millimetres at a size in points. */
  widthOf(text: string, size: number): number;
  runsOf(text: string, size: number): FontRun[];
}

/** Embeds the face of labels into a document. */
export async function labelFonts(document: PDFDocument): Promise<LabelFonts> {
  document.registerFontkit(fontkit);
  // The face ships with the application.
  const files = createRequire(import.meta.url)
    .resolve('@fontsource/source-sans-3/package.json')
    .replace(/package\.json$/, 'files/');
  const fonts: { readonly font: PDFFont; readonly signs: ReadonlySet<number> }[] = [];
  for (const script of SCRIPTS) {
    const font = await document.embedFont(readFileSync(`${files}source-sans-3-${script}-400-normal.woff`), {
      subset: true,
    });
    fonts.push({ font, signs: new Set(font.getCharacterSet()) });
  }
  const fontOf = (char: string) => fonts.find((f) => f.signs.has(char.codePointAt(0) ?? 0));
  const runsOf = (text: string, size: number): FontRun[] => {
    const runs: { text: string; font: PDFFont; x: number }[] = [];
    let x = 0;
    for (const char of text.normalize('NFC')) {
      const { font } = fontOf(char) ?? fonts[0]!;
      const shown = fontOf(char) ? char : '?';
      const last = runs.at(-1);
      if (last?.font === font) last.text += shown;
      else runs.push({ text: shown, font, x });
      x += font.widthOfTextAtSize(shown, size);
    }
    return runs;
  };
  return {
    has: (char) => fontOf(char) !== undefined,
    widthOf: (text, size) => {
      const last = runsOf(text, size).at(-1);
      return last ? (last.x + last.font.widthOfTextAtSize(last.text, size)) * POINT : 0;
    },
    runsOf,
  };
}
