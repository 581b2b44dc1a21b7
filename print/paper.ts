import { word } from '../core/locale/translate';
import { cell } from '../core/numerics/cell';
import PDFDocument from 'pdfkit';
import { type Face, fontBytes, type Piece, piecesOf } from './fonts';

/** The Shed theme, for paper. */
export const INK = '#22302f';
export const SOFT = '#565e5b';
export const LINE = '#cdc4b4';
export const COLOURS = {
  eelgrass: '#2c6a39',
  ochre: '#7d4e00',
  rust: '#a1301b',
  estuary: '#0e5863',
  socket: '#8f8778',
} as const;

export interface Style {
  /** Points. */
  readonly size?: number;
  readonly face?: Face;
  readonly colour?: string;
  readonly align?: 'left' | 'right';
}

/** A column of a table: its head, and its width in points; 0 takes what is left. */
export interface Column {
  readonly head: string;
  readonly width: number;
  readonly style?: Style;
}
export interface Cell {
  readonly text: string;
  readonly style?: Style;
}

type Element = PDFKit.PDFStructureElement;
// The types of the library do not know the subset yet.
const UNIVERSAL = 'PDF/UA' as 'PDF/A-1';
const LEADING = 1.3;
const MARGIN = 36;
const FOOT = 30;

/**
 * A4 paper that is filled from above: text that wraps, facts, tables, drawings and pictures, each with its
 * tag, so that a reader that speaks finds headings, rows and cells (ISO 14289-1, PDF/UA). Measures are
 * points.
 */
export class Paper {
  readonly width = 595.28 - 2 * MARGIN;
  readonly left = MARGIN;
  y = MARGIN;
  private readonly doc: PDFKit.PDFDocument;
  private readonly root: Element;
  private readonly chunks: Buffer[] = [];
  private readonly registered = new Set<string>();
  private readonly widths = new Map<string, number>();

  /** `size`: of plain text, in points. */
  constructor({ title, subject, size = 9 }: { title: string; subject: string; size?: number }) {
    this.size = size;
    this.doc = new PDFDocument({
      size: 'A4',
      margin: 0,
      pdfVersion: '1.7',
      subset: UNIVERSAL,
      tagged: true,
      lang: 'en-GB',
      displayTitle: true,
      bufferPages: true,
      autoFirstPage: false,
      // None to start with: the one that would be taken is not embedded.
      font: null as unknown as string,
      info: { Title: title, Subject: subject, Creator: 'Mudflat', Producer: 'Mudflat' },
    });
    this.doc.on('data', (chunk: Buffer) => this.chunks.push(chunk));
    this.root = this.doc.struct('Document', { title });
    this.doc.addStructure(this.root);
    this.newPage();
  }
  private readonly size: number;

  newPage(): void {
    this.doc.addPage();
    this.y = MARGIN;
  }

  /** Room left on the page, in points. */
  get room(): number {
    return this.doc.page.height - MARGIN - FOOT - this.y;
  }

  /** Starts a new page where less room than this is left. */
  need(height: number): void {
    if (this.room < height) this.newPage();
  }

  /** Leaves room; not at the head of a page. */
  space(height: number): void {
    if (this.y > MARGIN) this.y += height;
  }

  /**
   * The title of the document, or the heading of a part: in the outline too. Some of what follows stays with
   * it.
   */
  heading(level: 1 | 2, text: string, keep = 40): void {
    const size = { 1: 17, 2: 13 }[level];
    this.space(8);
    this.need(size * LEADING + keep);
    this.doc.outline.addItem(word(text));
    this.block(`H${level}`, text, { size, face: 'bold' });
    this.space(level === 1 ? 6 : 2);
  }

  paragraph(text: string, style: Style = {}, before = 2): void {
    this.space(before);
    this.block('P', text, style);
  }

  /** Name and value beside each other. */
  fact(name: string, value: string, nameStyle: Style = { colour: SOFT }, nameWidth = 62): void {
    const lines = this.wrap(value, this.width - nameWidth, {});
    this.need(Math.min(lines.length, 3) * this.lineHeight({}));
    const p = this.element('P');
    p.add(() => this.draw(this.wrap(name, nameWidth, nameStyle), this.left, this.y, nameWidth, nameStyle));
    this.flow(p, lines, this.left + nameWidth, this.width - nameWidth, {});
    p.end();
    this.space(1);
  }

  /** A table with a head that is repeated on every page that it reaches; rows are kept whole. */
  table(columns: readonly Column[], rows: readonly (readonly Cell[])[]): void {
    const rest = this.width - columns.reduce((sum, c) => sum + c.width, 0);
    const widths = columns.map((c) => (c.width || rest) - 6);
    const table = this.element('Table');
    const head = columns.map((c): Cell => ({ text: c.head, style: { ...c.style, face: 'bold' } }));
    const measure = (cells: readonly Cell[]) =>
      cells.map((c, i) => this.wrap(c.text, cell(widths, i), { ...columns[i]?.style, ...c.style }));
    const put = (cells: readonly Cell[], as: 'TH' | 'TD' | null): void => {
      const lines = measure(cells);
      const height = Math.max(...lines.map((l) => l.length)) * this.lineHeight({}) + 5;
      if (as === 'TD' && this.room < height) {
        this.newPage();
        put(head, null);
      }
      const [row, top] = [as && this.doc.struct('TR'), this.y + 2];
      if (row) table.add(row);
      let x = this.left;
      for (const [i, content] of cells.entries()) {
        const [at, style] = [x, { ...columns[i]?.style, ...content.style }];
        const drawn = (): void => this.draw(lines[i] ?? [], at, top, cell(widths, i), style);
        if (row) row.add(this.doc.struct(as ?? 'TD', as === 'TH' ? ({ scope: 'Column' } as object) : {}, [drawn]));
        else this.artifact(drawn);
        x += cell(widths, i) + 6;
      }
      row?.end();
      this.y += height;
      this.artifact(() => this.rule(this.y));
    };
    this.need(60);
    put(head, 'TH');
    for (const cells of rows) put(cells, 'TD');
    table.end();
  }

  /** A drawing of so many points in height, with what it says in words. */
  figure(height: number, alt: string, draw: (doc: PDFKit.PDFDocument, top: number) => void): void {
    this.need(height);
    const top = this.y;
    this.root.add(
      this.doc.struct(
        'Figure',
        { alt: word(alt), bbox: [this.left, top, this.left + this.width, top + height] } as object,
        [
          () => {
            this.doc.save();
            draw(this.doc, top);
            this.doc.restore();
          },
        ],
      ),
    );
    this.y += height;
  }

  /** Pictures beside each other, so many in a row, with what stands under each. */
  /** A mark at the right of the head, beside what is written next; it says nothing that is not written. */
  mark(picture: Buffer, width: number, height: number): void {
    this.artifact(() => {
      this.doc.image(picture, this.left + this.width - width, this.y, { fit: [width, height], align: 'right' });
    });
  }

  pictures(
    pictures: readonly {
      readonly jpeg: Buffer;
      readonly width: number;
      readonly height: number;
      readonly caption: string;
    }[],
    across: number,
    most: number,
  ): void {
    const each = (this.width - (across - 1) * 10) / across;
    for (let i = 0; i < pictures.length; i += across) {
      const row = pictures.slice(i, i + across).map((p) => {
        const scale = Math.min(each / p.width, most / p.height);
        return { ...p, w: p.width * scale, h: p.height * scale, lines: this.wrap(p.caption, each, SMALL) };
      });
      const tall = Math.max(...row.map((p) => p.h));
      this.need(tall + 3 * this.lineHeight(SMALL));
      for (const [n, p] of row.entries()) {
        const [x, y] = [this.left + n * (each + 10), this.y];
        this.root.add(
          this.doc.struct('Figure', { alt: p.caption, bbox: [x, y, x + p.w, y + p.h] } as object, [
            () => {
              this.doc.image(p.jpeg, x, y, { width: p.w, height: p.h });
            },
          ]),
        );
        this.root.add(this.doc.struct('Caption', {}, [() => this.draw(p.lines, x, y + tall + 2, each, SMALL)]));
      }
      this.y += tall + Math.max(...row.map((p) => p.lines.length)) * this.lineHeight(SMALL) + 8;
    }
  }

  /** What `body` draws stands behind a line at its left, or in a frame. Kept on one page where it fits. */
  aside(kind: 'line' | 'frame', colour: string, body: () => void): void {
    this.space(8);
    const [top, page] = [this.y, this.doc.page];
    this.y += kind === 'frame' ? 5 : 0;
    body();
    this.y += kind === 'frame' ? 5 : 0;
    const from = this.doc.page === page ? top : MARGIN;
    this.artifact(() => {
      if (kind === 'line') this.doc.rect(this.left - 10, from, 3, this.y - from).fill(colour);
      else
        this.doc
          .rect(this.left - 6, from, this.width + 12, this.y - from)
          .lineWidth(1)
          .stroke(colour);
    });
  }

  /** How high text would stand, in points. */
  heightOf(text: string, style: Style = {}): number {
    return this.wrap(text, this.width, style).length * this.lineHeight(style);
  }

  /** Writes one line at a place; for drawings. */
  label(text: string, x: number, y: number, width: number, style: Style): void {
    this.draw([piecesOf(text, style.face ?? 'plain')], x, y, width, style);
  }

  /** Closes the document: feet with page numbers, and the bytes. */
  async end(foot: string): Promise<Buffer> {
    const done = new Promise<void>((resolve, reject) => {
      this.doc.on('end', resolve);
      this.doc.on('error', reject);
    });
    const { count } = this.doc.bufferedPageRange();
    for (let i = 0; i < count; i++) {
      this.doc.switchToPage(i);
      this.artifact(() => {
        this.label(foot, this.left, this.doc.page.height - 28, 400, SMALL);
        this.label(`${i + 1} / ${count}`, this.left, this.doc.page.height - 28, this.width, {
          ...SMALL,
          align: 'right',
        });
      });
    }
    this.doc.end();
    await done;
    return Buffer.concat(this.chunks);
  }

  private element(type: string): Element {
    const made = this.doc.struct(type);
    this.root.add(made);
    return made;
  }

  private artifact(draw: () => void): void {
    this.doc.markContent('Artifact', { type: 'Layout' });
    draw();
    this.doc.endMarkedContent();
  }

  private rule(y: number): void {
    this.doc
      .moveTo(this.left, y)
      .lineTo(this.left + this.width, y)
      .lineWidth(0.5)
      .stroke(LINE);
  }

  private block(type: string, text: string, style: Style): void {
    const element = this.element(type);
    this.flow(element, this.wrap(text, this.width, style), this.left, this.width, style);
    element.end();
  }

  /** Lines under each other, over as many pages as they need. */
  private flow(element: Element, lines: readonly (readonly Piece[])[], x: number, width: number, style: Style): void {
    const height = this.lineHeight(style);
    for (let i = 0; i < lines.length;) {
      this.need(height);
      const fit = Math.max(1, Math.floor(this.room / height + 1e-6));
      const part = lines.slice(i, i + fit);
      element.add(() => this.draw(part, x, this.y, width, style));
      this.y += part.length * height;
      i += part.length;
    }
  }

  private lineHeight({ size = this.size }: Style): number {
    return size * LEADING;
  }

  private draw(lines: readonly (readonly Piece[])[], x: number, y: number, width: number, style: Style): void {
    const size = style.size ?? this.size;
    for (const [i, pieces] of lines.entries()) {
      let at = style.align === 'right' ? x + width - pieces.reduce((sum, p) => sum + this.widthOf(p, size), 0) : x;
      for (const p of pieces) {
        this.use(p.font, size)
          .fillColor(style.colour ?? INK)
          .text(p.text, at, y + i * size * LEADING, { lineBreak: false });
        at += this.widthOf(p, size);
      }
    }
  }

  private use(font: string, size: number): PDFKit.PDFDocument {
    if (!this.registered.has(font)) this.doc.registerFont(font, fontBytes(font));
    this.registered.add(font);
    return this.doc.font(font).fontSize(size);
  }

  private widthOf({ font, text }: Piece, size: number): number {
    const key = `${font}|${text}`;
    const known = this.widths.get(key) ?? this.use(font, 1000).widthOfString(text) / 1000;
    this.widths.set(key, known);
    return known * size;
  }

  /** Breaks text into lines at spaces, and a word that is longer than a line within. */
  private wrap(text: string, width: number, style: Style): Piece[][] {
    // Whatever stands on paper passes here: in the words of whoever asked for it.
    text = word(text);
    const [size, face] = [style.size ?? this.size, style.face ?? 'plain'];
    const long = (words: string): number => piecesOf(words, face).reduce((sum, p) => sum + this.widthOf(p, size), 0);
    const lines: string[] = [];
    for (const given of text.split(/\r?\n/)) {
      let line = '';
      let used = 0;
      for (const word of given.split(/(?<=\s)/).flatMap((w) => this.cut(w, width, long))) {
        const wide = long(word.trimEnd());
        if (line && used + wide > width) {
          lines.push(line.trimEnd());
          line = '';
          used = 0;
        }
        line += word;
        used += long(word);
      }
      lines.push(line.trimEnd());
    }
    return lines.map((l) => piecesOf(l, face));
  }

  private cut(word: string, width: number, long: (words: string) => number): string[] {
    if (long(word.trimEnd()) <= width) return [word];
    const out: string[] = [];
    let part = '';
    for (const letter of word) {
      if (part && long(part + letter) > width) {
        out.push(part);
        part = '';
      }
      part += letter;
    }
    return [...out, part];
  }
}

export const SMALL: Style = { size: 8, colour: SOFT };
