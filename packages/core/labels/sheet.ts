/** What kinds of label there are. */
export const LABEL_KINDS = ['spine', 'barcode', 'pocket', 'withdrawn'] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];
/** The codes in which a barcode is printed: ISO/IEC 15417, ISO/IEC 16388, EN 798. */
export const LABEL_CODES = ['code128', 'code39', 'codabar'] as const;
export type LabelCode = (typeof LABEL_CODES)[number];

/** A sheet of labels, all lengths in millimetres, places from the top left of the page. */
export interface LabelSheet {
  readonly name: string;
  readonly pageWidth: number;
  readonly pageHeight: number;
  readonly columns: number;
  readonly rows: number;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  /** Between one label and the next. */
  readonly gapX: number;
  readonly gapY: number;
}

/** A4 (ISO 216). */
const A4 = { pageWidth: 210, pageHeight: 297 };

/** Sheets to begin with, by what they are for. */
export const LABEL_SHEETS: readonly LabelSheet[] = [
  {
    name: 'A4, 4 × 12 for spines',
    ...A4,
    ...{ columns: 4, rows: 12, left: 10, top: 10.5, width: 45, height: 21, gapX: 3.3, gapY: 2 },
  },
  {
    name: 'A4, 3 × 8 for barcodes',
    ...A4,
    ...{ columns: 3, rows: 8, left: 7, top: 12, width: 63, height: 32, gapX: 3.5, gapY: 2.2 },
  },
  {
    name: 'A4, 2 × 7 for pockets',
    ...A4,
    ...{ columns: 2, rows: 7, left: 5, top: 15, width: 98, height: 37, gapX: 4, gapY: 1.2 },
  },
];

/** Where a label stands: page from 0, and its top left corner in millimetres. */
export interface LabelPlace {
  readonly page: number;
  readonly x: number;
  readonly y: number;
}

/** The places of so many labels, row by row, when the first goes to the n-th label (from 1) of the first page. */
export function labelPlaces(sheet: LabelSheet, count: number, startAt = 1): LabelPlace[] {
  const onPage = sheet.columns * sheet.rows;
  return Array.from({ length: count }, (_, i) => {
    const at = startAt - 1 + i;
    const place = at % onPage;
    return {
      page: Math.floor(at / onPage),
      x: sheet.left + (place % sheet.columns) * (sheet.width + sheet.gapX),
      y: sheet.top + Math.floor(place / sheet.columns) * (sheet.height + sheet.gapY),
    };
  });
}

/** What is wrong with a sheet, beside its field. */
export function labelSheetProblems(sheet: LabelSheet): { field: keyof LabelSheet; message: string }[] {
  const problems: { field: keyof LabelSheet; message: string }[] = [];
  const { columns, rows, left, top, width, height, gapX, gapY, pageWidth, pageHeight } = sheet;
  if (width < 8) problems.push({ field: 'width', message: 'A label is at least 8 mm wide.' });
  if (height < 6) problems.push({ field: 'height', message: 'A label is at least 6 mm high.' });
  const across = left + columns * width + (columns - 1) * gapX;
  const down = top + rows * height + (rows - 1) * gapY;
  if (across > pageWidth + 0.01)
    problems.push({
      field: 'columns',
      message: `${columns} labels beside each other end at ${round(across)} mm; the page is ${pageWidth} mm wide.`,
    });
  if (down > pageHeight + 0.01)
    problems.push({
      field: 'rows',
      message: `${rows} labels below each other end at ${round(down)} mm; the page is ${pageHeight} mm high.`,
    });
  return problems;
}

const round = (mm: number): number => Math.round(mm * 10) / 10;
