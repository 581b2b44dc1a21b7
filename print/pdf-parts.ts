import { tr } from '../core/locale/translate';
import type { JudgedReading, Position } from '../core/judge/types';
import { limitsAt } from '../core/limits/at';
import type { Limits } from '../core/limits/types';
import type { RunView } from '../application/views';
import { placeMark } from '../application/posts/place';
import { noteOf, type Row, rowsOf } from '../application/posts/rows';
import { type Scale, scaleFor } from '../application/posts/scale';
import { MARKS, TONE } from '../application/posts/shapes';
import type { ReportFacts } from '../application/report/facts';
import { pictureHeight, type Stroke, strokesOf, type TracePicture } from '../application/traces/picture';
import { COLOURS, INK, LINE, type Paper, SMALL } from './paper';

const [POST, CHANNEL, EDGE] = ['#6f6758', '#bfdedb', '#2b7f88'];
const MONO = { face: 'mono' } as const;

/** On every page of a demo: nobody is to take it for a real engine's. */
export const DEMO = '; demo: everything here is invented';

/** Every reading with its verdict and why. */
export function putReadings(paper: Paper, report: ReportFacts): void {
  paper.space(8);
  paper.table(
    [
      { head: 'Where', width: 44, style: { face: 'bold' } },
      { head: 'Read', width: 40, style: MONO },
      { head: 'Corrected', width: 66, style: MONO },
      { head: 'Verdict', width: 58, style: { face: 'bold' } },
      { head: 'Why', width: 0 },
      { head: 'When, who', width: 84 },
    ],
    report.rows.map((r) => [
      { text: String(r.reading.position) },
      { text: r.entry },
      { text: r.corrected },
      { text: r.verdict, style: { colour: r.reading.severity === 'none' ? INK : COLOURS[TONE[r.reading.severity]] } },
      { text: r.reasons },
      { text: r.taken },
    ]),
  );
  for (const c of report.corrections) paper.paragraph(tr`Correction. ${c}`);
}

const [HEIGHT, PAD, AXIS] = [98, 10, 34];

/** The rows of posts of a run. */
export function putPosts(paper: Paper, run: RunView): void {
  const rows = rowsOf(run.unit.engine, run.definition);
  const readings = new Map(run.judgement.readings.map((r) => [r.position, r]));
  const { limits } = run.specification;
  const scale = scaleFor(
    limits,
    run.judgement.readings.flatMap((r) => r.corrected ?? []),
  );
  for (const [i, row] of rows.entries()) {
    const note = noteOf(run.unit.engine, i, rows.length, run.definition);
    paper.space(6);
    paper.figure(HEIGHT + 12, altOf(row, readings), (doc, top) => {
      paper.label(row.title, paper.left, top, paper.width, SMALL);
      paper.label(note, paper.left, top, paper.width, { ...SMALL, align: 'right' });
      new Posts(paper, doc, top + 12, scale).draw(row, readings, limits);
    });
  }
}

/** The lanes of a recording around what was found, with its words below. */
export function putRecorded(paper: Paper, picture: TracePicture): void {
  paper.space(6);
  paper.figure(pictureHeight(picture), picture.caption, (doc, top) => {
    for (const s of strokesOf(picture, paper.width)) putStroke(paper, doc, top, s);
  });
  paper.paragraph(picture.caption, SMALL);
}

const FILLS = { lane: ['#ffffff', 1], limits: [CHANNEL, 0.4], marked: [COLOURS.rust, 0.25] } as const;

function putStroke(paper: Paper, doc: PDFKit.PDFDocument, top: number, s: Stroke): void {
  if (s.kind === 'area') {
    const [x, y, w, h] = s.box;
    const [fill, opacity] = FILLS[s.role];
    doc
      .save()
      .opacity(opacity)
      .rect(paper.left + x, top + y, w, Math.max(h, 0))
      .fill(fill)
      .restore();
    if (s.role === 'lane')
      doc
        .rect(paper.left + x, top + y, w, h)
        .lineWidth(0.4)
        .stroke(LINE);
  } else if (s.kind === 'line') {
    const [first = [0, 0], ...rest] = s.points;
    doc.moveTo(paper.left + first[0], top + first[1]);
    for (const [x, y] of rest) doc.lineTo(paper.left + x, top + y);
    doc.lineWidth(0.8).stroke(EDGE);
  } else {
    const width = 200;
    const x = paper.left + s.at[0] - (s.align === 'right' ? width : 0);
    paper.label(s.text, x, top + s.at[1], width, { size: 7, align: s.align, colour: INK });
  }
}

const altOf = (row: Row, readings: ReadonlyMap<Position, JudgedReading>): string =>
  `${row.title}: ${row.positions
    .map((p) => {
      const r = readings.get(p);
      return r?.entry ? `${p} ${r.entry}, ${r.verdict}` : tr`${p} not measured`;
    })
    .join('; ')}.`;

/**
 * One row of posts: the channel that each mark should stand in, the post, the mark, its number and what was
 * read.
 */
class Posts {
  constructor(
    private readonly paper: Paper,
    private readonly doc: PDFKit.PDFDocument,
    private readonly top: number,
    private readonly scale: Scale,
  ) {}

  draw(row: Row, readings: ReadonlyMap<Position, JudgedReading>, limits: Limits): void {
    const { paper, doc, scale } = this;
    const [from, to] = [paper.left + AXIS, paper.left + paper.width];
    const step = (to - from) / row.positions.length;
    for (const t of scale.ticks) {
      doc.moveTo(from, this.at(t.height)).lineTo(to, this.at(t.height)).lineWidth(0.4).stroke(LINE);
      paper.label(t.label, paper.left, this.at(t.height) - 4, AXIS - 6, {
        size: 6,
        face: 'mono',
        align: 'right',
        colour: INK,
      });
    }
    for (const [i, p] of row.positions.entries()) {
      const [r, x] = [readings.get(p), from + i * step];
      this.channel(limits.transfer ? r?.limits : limitsAt(limits, p), x, step);
      if (r) this.mark(r, x + 20);
      paper.label(String(p), x + 36, this.top + 8, step - 36, { size: 10, face: 'bold' });
      paper.label(r?.entry || '–', x + 36, this.top + 22, step - 36, {
        size: (r?.entry.length ?? 0) > 5 ? 8 : 12,
        face: 'mono',
      });
    }
  }

  private at(height: number): number {
    return this.top + PAD + (1 - height) * (HEIGHT - 2 * PAD);
  }

  private channel(
    own: { readonly lower?: number | null | undefined; readonly upper?: number | null | undefined } | null | undefined,
    x: number,
    step: number,
  ): void {
    if (!own || (own.lower == null && own.upper == null)) return;
    const [top, foot] = [
      this.at(own.upper == null ? 1 : this.scale.height(own.upper)),
      this.at(own.lower == null ? 0 : this.scale.height(own.lower)),
    ];
    this.doc.rect(x, top, step, foot - top).fill(CHANNEL);
    this.doc
      .moveTo(x, top)
      .lineTo(x + step, top)
      .lineWidth(0.8)
      .stroke(EDGE);
  }

  private mark(r: JudgedReading, x: number): void {
    const { doc } = this;
    const colour = COLOURS[TONE[r.severity]];
    doc
      .save()
      .opacity(r.verdict === 'not-measured' ? 0.4 : 1)
      .moveTo(x, this.top + (r.verdict === 'open' ? 22 : PAD - 4))
      .lineTo(x, this.top + HEIGHT - PAD + 2)
      .lineWidth(3)
      .stroke(POST)
      .restore();
    doc
      .save()
      .translate(x, this.at(placeMark(r, this.scale).height))
      .scale(0.6);
    for (const s of MARKS[r.verdict]) {
      doc.path(s.d);
      if (s.fill) doc.fill(colour);
      else {
        const [on, off] = (s.dash ?? '').split(' ').map(Number);
        if (on) doc.dash(on, { space: off ?? on });
        else doc.undash();
        doc.lineWidth(s.width ?? 1).stroke(colour);
      }
    }
    doc.restore();
  }
}
