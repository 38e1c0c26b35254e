export { parcel } from './parcel.js';
export { sheetRows, type SheetReading } from './sheet.js';
export { reportPages, reportPdf, type PdfOptions } from './pdf.js';
export type { PageBreak } from './pdf-breaks.js';
export { PAPERS, type Paper } from './pdf-page.js';
export { calendarText, type CalendarEntry } from './calendar.js';
export {
  EXPORTED,
  exportableOf,
  exportText,
  IMPORTED,
  importText,
  tableRows,
  tableText,
  type Exportable,
  type Exported,
  type Imported,
  type ImportReading,
} from './formats.js';
export { UnprintableText } from './pdf-faces.js';
