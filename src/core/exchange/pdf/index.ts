export { SCRIPTS, scriptsIn, type PdfFonts, type Script } from './fonts';
export type { Paper } from './pages';
export { reportPdf, type PdfRequest } from './reportPdf';
