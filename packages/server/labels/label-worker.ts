import {
  labelPlaces,
  spineLines,
  type LabelCode,
  type LabelKind,
  type LabelSheet,
  type SpineText,
} from '@osier/core/labels';
import bwipjs from 'bwip-js/node';
import { PDFDocument, rgb } from 'pdf-lib';
import { labelFonts, type LabelFonts } from './label-fonts';

/** What a label says. */
export interface LabelText {
  /** Null of a copy that is withdrawn: it stands on no shelf any more. */
  readonly spine: SpineText | null;
  readonly callNumber: string;
  readonly barcode: string;
  readonly title: string;
  readonly name: string;
  /** ISO date; '' of a copy that is there. */
  readonly withdrawnOn: string;
}

/** Labels that are to be set. */
export interface LabelOrder {
  readonly kind: LabelKind;
  readonly code: LabelCode;
  readonly sheet: LabelSheet;
  readonly startAt: number;
  readonly labels: readonly LabelText[];
  /** Whether they are printed; for a preview they are only set. */
  readonly isPrinted: boolean;
}

/** A line of text on a page: its left end and the line it stands on in millimetres from the top left, its size in points. */
interface SetText {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly size: number;
}
/** A label as it is set: texts and bars, and what of it does not fit. */
export interface SetLabel {
  readonly page: number;
  readonly x: number;
  readonly y: number;
  readonly texts: readonly SetText[];
  readonly bars: readonly {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
  }[];
  readonly problem: string | null;
}

const POINT = 25.4 / 72;
/** Millimetres within a label that stay free. */
const MARGIN = 2;
/** The narrowest bar that scanners read well, and one that needs no more room (ISO/IEC 15416, common practice). */
const NARROWEST = 0.19;
const WIDEST = 0.38;
/** Bars wide of free space beside a code (ISO/IEC 15417, 16388). */
const QUIET = 10;
const SIZES = [13, 12, 11, 10, 9, 8] as const;
const SMALLEST = 7;
/** Sizes of what must be seen across a room, and of what stands below it. */
const LARGE = [22, 20, 18, 16, 14, ...SIZES] as const;
const SMALL = 8;
const lineHeight = (size: number): number => size * POINT * 1.2;

/** The label's own part: what stands in it, from its corner. */
type Inner = Pick<SetLabel, 'texts' | 'bars' | 'problem'>;

/** Labels as they are set, with their PDF; empty where they are not printed. */
export interface LabelsSet {
  readonly labels: readonly SetLabel[];
  readonly pdf: Uint8Array;
}

/** Sets labels and prints them: the places of all that is on them, and the pages as a PDF (in the fonts that are embedded). */
export async function labelPdf(order: LabelOrder): Promise<LabelsSet> {
  const document = await PDFDocument.create();
  const fonts = await labelFonts(document);
  const places = labelPlaces(order.sheet, order.labels.length, order.startAt);
  const labels = order.labels.map((label, i): SetLabel => {
    const place = places[i]!;
    const inner = INNER[order.kind](label, order, fonts);
    return {
      ...place,
      texts: inner.texts.map((t) => ({ ...t, x: t.x + place.x, y: t.y + place.y })),
      bars: inner.bars.map((b) => ({ ...b, x: b.x + place.x, y: b.y + place.y })),
      problem: inner.problem ?? unprinted(label, order.kind, fonts),
    };
  });
  if (!order.isPrinted) return { labels, pdf: new Uint8Array() };
  print(document, labels, order.sheet, fonts);
  document.setTitle('Labels');
  document.setProducer('Osier');
  return { labels, pdf: await document.save() };
}

const INNER: Readonly<Record<LabelKind, (label: LabelText, order: LabelOrder, fonts: LabelFonts) => Inner>> =
  {
    spine: ({ spine }, { sheet }, fonts) => {
      if (!spine) return { texts: [], bars: [], problem: null };
      const width = sheet.width - 2 * MARGIN;
      const inSize = (size: number) =>
        spineLines(spine, (text) => fonts.widthOf(text, size), {
          width,
          lines: Math.floor((sheet.height - MARGIN) / lineHeight(size)),
        });
      const size = SIZES.find((s) => inSize(s).problem === null) ?? SMALLEST;
      const { lines, problem } = inSize(size);
      const texts = lines.map((text, i) => ({
        text,
        x: MARGIN,
        y: MARGIN / 2 + lineHeight(size) * (i + 0.8),
        size,
      }));
      return { texts, bars: [], problem };
    },
    barcode: (label, order, fonts) => coded(label, order, fonts, [label.callNumber]),
    pocket: (label, order, fonts) => coded(label, order, fonts, [label.title, label.name, label.callNumber]),
    withdrawn: crossedOut,
  };

/** What a copy is called that left the library, set as large as it goes over the date, its call number and its barcode in figures. */
const LEFT = 'WITHDRAWN';

/** The label of a copy that was withdrawn: no code, so that no scanner takes it for one of the library's. */
function crossedOut(
  { withdrawnOn, callNumber, barcode }: LabelText,
  { sheet }: LabelOrder,
  fonts: LabelFonts,
): Inner {
  const width = sheet.width - 2 * MARGIN;
  const small = [withdrawnOn, callNumber, barcode].filter(Boolean);
  const below = small.length * lineHeight(SMALL);
  const fits = (size: number) =>
    fonts.widthOf(LEFT, size) <= width && lineHeight(size) + below + MARGIN <= sheet.height;
  const size = LARGE.find(fits);
  const first = lineHeight(size ?? SMALLEST);
  const texts: SetText[] = [
    { text: LEFT, x: MARGIN, y: MARGIN / 2 + first * 0.8, size: size ?? SMALLEST },
    ...small.map((text, i) => ({
      ...{ text, x: MARGIN, size: SMALL },
      y: MARGIN / 2 + first + lineHeight(SMALL) * (i + 0.8),
    })),
  ];
  const wide = small.find((text) => fonts.widthOf(text, SMALL) > width);
  const problem =
    size === undefined
      ? `“${LEFT}” and ${small.length} lines below do not fit on the label.`
      : wide !== undefined
        ? `“${wide}” is too wide for the label.`
        : null;
  return { texts, bars: [], problem };
}

/** Lines of text over a barcode with its number below. */
function coded(
  { barcode }: LabelText,
  { sheet, code }: LabelOrder,
  fonts: LabelFonts,
  said: readonly string[],
): Inner {
  const width = sheet.width - 2 * MARGIN;
  const size = 8;
  const lines = said.filter(Boolean).flatMap((text) => wrapped(text, width, size, fonts));
  const texts: SetText[] = lines.map((text, i) => ({
    text,
    x: MARGIN,
    y: MARGIN / 2 + lineHeight(size) * (i + 0.8),
    size,
  }));
  const top = MARGIN / 2 + lineHeight(size) * lines.length + 1;
  const height = Math.min(14, sheet.height - top - lineHeight(size) - MARGIN / 2);
  const bars = barsOf(barcode, code);
  if (typeof bars === 'string') return { texts, bars: [], problem: bars };
  const modules = bars.reduce((n, w) => n + w, 0);
  const unit = Math.min(WIDEST, sheet.width / (modules + 2 * QUIET));
  const left = (sheet.width - modules * unit) / 2;
  const placed: SetLabel['bars'][number][] = [];
  let x = left;
  bars.forEach((w, i) => {
    if (i % 2 === 0) placed.push({ x, y: top, width: w * unit, height: Math.max(height, 1) });
    x += w * unit;
  });
  const under = fonts.widthOf(barcode, size);
  texts.push({
    text: barcode,
    x: Math.max(0, (sheet.width - under) / 2),
    y: top + height + lineHeight(size) * 0.85,
    size,
  });
  const wide = said.find((text) =>
    wrapped(text, width, size, fonts).some((line) => fonts.widthOf(line, size) > width),
  );
  const problem =
    unit < NARROWEST
      ? `The code of ${barcode} needs a label of ${Math.ceil((modules + 2 * QUIET) * NARROWEST)} mm, or another kind of code.`
      : height < 5
        ? 'The label is too low for its text and a barcode.'
        : wide !== undefined
          ? `“${wide}” is too wide for the label.`
          : null;
  return { texts, bars: placed, problem };
}

/** Text in lines between its words. */
function wrapped(text: string, width: number, size: number, fonts: LabelFonts): string[] {
  return text.split(/\s+/).reduce<string[]>((lines, word) => {
    const last = lines.at(-1);
    return last !== undefined && fonts.widthOf(`${last} ${word}`, size) <= width
      ? [...lines.slice(0, -1), `${last} ${word}`]
      : [...lines, word];
  }, []);
}

const NAMES: Readonly<Record<LabelCode, string>> = {
  code128: 'code128',
  code39: 'code39',
  codabar: 'rationalizedCodabar',
};

/** The widths of bars and spaces of a code in turn, a bar first; a sentence where it cannot be written so. */
function barsOf(barcode: string, code: LabelCode): readonly number[] | string {
  try {
    // Codabar begins and ends with letters that are no part of the number.
    const [stack] = bwipjs.raw(
      NAMES[code],
      code === 'codabar' ? `A${barcode}B` : code === 'code39' ? barcode.toUpperCase() : barcode,
      '',
    );
    if (stack && 'sbs' in stack) return stack.sbs;
    return `${barcode} cannot be printed in this code.`;
  } catch {
    return `${barcode} cannot be printed in this code: it has other characters than the code.`;
  }
}

/** What of a label no font has a sign for. */
function unprinted(
  { spine, title, name, callNumber }: LabelText,
  kind: LabelKind,
  fonts: LabelFonts,
): string | null {
  const all = kind === 'pocket' ? `${title}${name}${callNumber}` : `${callNumber}${spine?.part ?? ''}`;
  const [sign] = [...all].filter((char) => char.trim() !== '' && !fonts.has(char));
  return sign === undefined ? null : `There is no sign for “${sign}” in the fonts of labels.`;
}

function print(
  document: PDFDocument,
  labels: readonly SetLabel[],
  sheet: LabelSheet,
  fonts: LabelFonts,
): void {
  const black = rgb(0, 0, 0);
  const pages = Math.max(0, ...labels.map((l) => l.page)) + 1;
  for (let n = 0; n < pages; n++) document.addPage([sheet.pageWidth / POINT, sheet.pageHeight / POINT]);
  for (const { page: n, texts, bars } of labels) {
    const page = document.getPage(n);
    for (const b of bars)
      page.drawRectangle({
        x: b.x / POINT,
        y: (sheet.pageHeight - b.y - b.height) / POINT,
        width: b.width / POINT,
        height: b.height / POINT,
        color: black,
      });
    for (const t of texts)
      for (const run of fonts.runsOf(t.text, t.size))
        page.drawText(run.text, {
          x: t.x / POINT + run.x,
          y: (sheet.pageHeight - t.y) / POINT,
          size: t.size,
          font: run.font,
          color: black,
        });
  }
}
