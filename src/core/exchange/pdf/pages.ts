import PDFDocument from 'pdfkit';
import { runsOf, SCRIPTS, type Face, type PdfFonts } from './fonts';

export type Paper = 'A4' | 'Letter';

/** Sizes in points (ISO 216, ANSI/ASME Y14.1). */
const PAPERS: Readonly<Record<Paper, readonly [number, number]>> = {
  A4: [595.28, 841.89],
  Letter: [612, 792],
};
export const MARGIN = 40;
const FOOT = 24;

export const COLORS = {
  ink: '#2a2622',
  faded: '#665e51',
  rule: '#bdb4a3',
  plan: '#8f5c10',
  good: '#1f6f66',
  bad: '#a8322a',
} as const;

export type Area = {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly bottom: number;
};

/** A part of a document's structure (ISO 32000-1, 14.8): what reads it aloud goes by these, and not by places on pages. */
export type Part = ReturnType<PDFKit.PDFDocument['struct']>;
/** What a text is in it: of which type, within which part; what heads a table says whether it heads a row or a column. */
export type As = {
  readonly type: 'H1' | 'H2' | 'H3' | 'P' | 'TH' | 'TD';
  readonly within: Part;
  readonly heads?: 'Row' | 'Column' | 'Both';
};

/** What stands at the foot of every page. */
export type Foot = { readonly left: string; readonly page: (n: number, of: number) => string };

/**
 * A document page by page: texts in the book's fonts, lines, and what stands at the foot of each once all are there. Several
 * reports can follow one another in it, each on paper of its own direction.
 */
export class Pages {
  private readonly doc: PDFKit.PDFDocument;
  private readonly feet: Foot[] = [];
  private area: Area = { left: 0, top: 0, width: 0, bottom: 0 };
  private readonly widths = new Map<string, number>();
  private readonly root: Part;

  constructor(
    private readonly fonts: PdfFonts,
    private readonly paper: Paper,
    info: { readonly title: string; readonly author: string; readonly made: Date; readonly lang: string },
  ) {
    this.doc = new PDFDocument({
      autoFirstPage: false,
      bufferPages: true,
      tagged: true,
      pdfVersion: '1.7',
      displayTitle: true,
      lang: info.lang,
      font: null as unknown as string,
      info: {
        Title: info.title,
        Author: info.author,
        CreationDate: info.made,
        Producer: 'Tellan',
        Creator: 'Tellan',
      },
    } as PDFKit.PDFDocumentOptions);
    for (const face of ['plain', 'bold', 'title'] as const)
      for (const script of SCRIPTS) {
        const file = fonts[face][script];
        if (file) this.doc.registerFont(`${face} ${script}`, file as unknown as Buffer);
      }
    this.root = this.doc.struct('Document');
    this.doc.addStructure(this.root);
  }

  /** A part of the document's structure, the next of those within another; to be ended. */
  part(type: 'Sect' | 'Table' | 'TR', within: Part = this.root): Part {
    const part = this.doc.struct(type);
    within.add(part);
    return part;
  }

  /** Draws what is no part of the structure: lines, and what stands on every page. */
  private aside(draw: () => void): void {
    this.doc.markContent('Artifact', { type: 'Layout' });
    draw();
    this.doc.endMarkedContent();
  }

  /** How much a page takes between its margins, of this paper. */
  static room(paper: Paper, landscape: boolean): { readonly width: number; readonly height: number } {
    const [short, long] = PAPERS[paper];
    const [w, h] = landscape ? [long, short] : [short, long];
    return { width: w - 2 * MARGIN, height: h - 2 * MARGIN - FOOT };
  }

  /** Begins a page. */
  page(landscape: boolean, foot: Foot): Area {
    const { width, height } = Pages.room(this.paper, landscape);
    const [short, long] = PAPERS[this.paper];
    this.doc.addPage({
      size: landscape ? [long, short] : [short, long],
      margins: { top: 0, bottom: 0, left: 0, right: 0 },
    });
    this.feet.push(foot);
    this.area = { left: MARGIN, top: MARGIN, width, bottom: MARGIN + height };
    return this.area;
  }

  private faceFor(face: Face, script: string): string {
    return this.fonts[face][script as 'latin'] ? `${face} ${script}` : `bold ${script}`;
  }

  /** How wide a text is. */
  width(text: string, face: Face, size: number): number {
    const key = `${face} ${size} ${text}`;
    let width = this.widths.get(key);
    if (width === undefined) {
      width = 0;
      for (const run of runsOf(text, this.fonts[face].latin ? merged(this.fonts, face) : this.fonts.bold))
        width += this.doc.font(this.faceFor(face, run.script), size).widthOfString(run.text);
      this.widths.set(key, width);
    }
    return width;
  }

  /** Writes a text on its base line's row, left or right of a place, cut with three points where it has no room. */
  text(
    text: string,
    x: number,
    y: number,
    style: {
      readonly face?: Face;
      readonly size: number;
      readonly color?: string;
      readonly align?: 'left' | 'right' | 'center';
      readonly most?: number;
      /** What it is to those who have it read aloud; without it, nothing. */
      readonly as?: As | undefined;
      /** What is read aloud in its place. */
      readonly said?: string | undefined;
    },
  ): void {
    const face = style.face ?? 'plain';
    const shown = style.most === undefined ? text : this.cut(text, face, style.size, style.most);
    const width = this.width(shown, face, style.size);
    let at = style.align === 'right' ? x - width : style.align === 'center' ? x - width / 2 : x;
    const draw = () => {
      for (const run of runsOf(shown, merged(this.fonts, face))) {
        this.doc
          .font(this.faceFor(face, run.script), style.size)
          .fillColor(style.color ?? COLORS.ink)
          .text(run.text, at, y, { lineBreak: false });
        at += this.doc.widthOfString(run.text);
      }
    };
    if (!style.as) return this.aside(draw);
    const { type, within, heads } = style.as;
    // What has no room on the page is read whole.
    const said = style.said ?? text;
    const options = { ...(shown === said ? {} : { actual: said }), ...(heads ? { scope: heads } : {}) };
    within.add(this.doc.struct(type, options, draw));
  }

  private cut(text: string, face: Face, size: number, most: number): string {
    if (this.width(text, face, size) <= most) return text;
    const letters = [...text];
    let [low, high] = [0, letters.length];
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if (this.width(`${letters.slice(0, middle).join('').trimEnd()}…`, face, size) <= most) low = middle;
      else high = middle - 1;
    }
    return `${letters.slice(0, low).join('').trimEnd()}…`;
  }

  /** A text as lines of at most so wide, broken between words. */
  lines(text: string, face: Face, size: number, most: number): string[] {
    const out: string[] = [];
    for (const part of text.split('\n')) {
      let line = '';
      for (const word of part.split(/ +/)) {
        const longer = line === '' ? word : `${line} ${word}`;
        if (line !== '' && this.width(longer, face, size) > most) {
          out.push(line);
          line = word;
        } else line = longer;
      }
      out.push(line);
    }
    return out;
  }

  line(x1: number, x2: number, y: number, width = 0.5, color: string = COLORS.ink): void {
    this.aside(() => this.doc.moveTo(x1, y).lineTo(x2, y).lineWidth(width).strokeColor(color).stroke());
  }

  box(x: number, y: number, width: number, height: number, color: string): void {
    this.aside(() => this.doc.rect(x, y, width, height).fill(color));
  }

  /** All pages as one file, with their feet. */
  async bytes(): Promise<Uint8Array> {
    this.root.end();
    const of = this.feet.length;
    this.feet.forEach((foot, i) => {
      this.doc.switchToPage(i);
      const { width, height } = this.doc.page;
      const y = height - MARGIN - 8;
      this.line(MARGIN, width - MARGIN, y - 5, 0.4, COLORS.rule);
      const page = foot.page(i + 1, of);
      const room = width - 2 * MARGIN - this.width(page, 'plain', 7.5) - 12;
      this.text(foot.left, MARGIN, y, { size: 7.5, color: COLORS.faded, most: room });
      this.text(page, width - MARGIN, y, { size: 7.5, color: COLORS.faded, align: 'right' });
    });
    const chunks: Uint8Array[] = [];
    const done = new Promise<void>((resolve, reject) => {
      this.doc.on('data', (chunk: Uint8Array) => chunks.push(chunk));
      this.doc.on('end', resolve);
      this.doc.on('error', reject);
    });
    this.doc.end();
    await done;
    const out = new Uint8Array(chunks.reduce((n, c) => n + c.byteLength, 0));
    let at = 0;
    for (const chunk of chunks) {
      out.set(chunk, at);
      at += chunk.byteLength;
    }
    return out;
  }
}

/** The files of a face, with the bold ones where it has none of its own. */
const merged = (fonts: PdfFonts, face: Face) => ({ ...fonts.bold, ...fonts[face] });
