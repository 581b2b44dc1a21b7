import { tr } from '../core/locale/translate';
import { fileReport, payerReport, type ReportView, type Section, type Voice } from '../application/report/job-report';
import type { PhotoView, RunView } from '../application/views';
import { reportFacts } from '../application/report/facts';
import { COLOURS, Paper, SMALL } from './paper';
import { DEMO, putPosts, putReadings, putRecorded } from './pdf-parts';

/** A photo as it goes into the document. */
export interface ReportPhoto extends PhotoView {
  readonly jpeg: Buffer;
}

/** The report of a job in one of its two voices: A4. `logo`: PNG or JPEG, for letters. Needs Node. */
export function jobPdf(
  view: ReportView,
  voice: Voice,
  photos: readonly ReportPhoto[],
  logo: Buffer | null = null,
  isDemo = false,
): Promise<Buffer> {
  const paper = voice === 'payer' ? forPayer(view, photos, logo) : forFile(view, photos);
  return paper.end(tr`${view.job.unit.fleetNumber}, job ${view.job.job.number}${isDemo ? DEMO : ''}`);
}

const captioned = (p: ReportPhoto) => ({ ...p, caption: `${p.name}, ${p.by}` });

function putSection(paper: Paper, { title, lines }: Section): void {
  paper.heading(2, title);
  for (const line of lines) paper.paragraph(line);
}

function forPayer(view: ReportView, photos: readonly ReportPhoto[], logo: Buffer | null): Paper {
  const report = payerReport(view);
  const paper = new Paper({ title: report.title, subject: view.job.job.complaint, size: 11 });
  const [name = '', ...address] = report.letterhead;
  if (logo) paper.mark(logo, 150, 48);
  paper.paragraph(name, { face: 'bold' });
  for (const line of address) paper.paragraph(line, SMALL, 0);
  paper.space(18);
  paper.heading(1, report.title);
  paper.paragraph(report.unit, { colour: SMALL.colour ?? '' }, 0);
  for (const s of report.sections.slice(0, 3)) putSection(paper, s);
  const picture = photos.find((p) => p.id === report.picture);
  // Without a photo the readings are the picture: the posts of the first test that found something.
  const convicting = view.runs.find((r) => r.judgement.suspects.length > 0);
  paper.space(8);
  if (picture) paper.pictures([captioned(picture)], 1, 220);
  else if (report.recording) putRecorded(paper, report.recording);
  else if (convicting) {
    paper.paragraph(tr`${convicting.definition.name}: what was read at each place, and the band that is good.`, SMALL);
    putPosts(paper, convicting);
  }
  for (const s of report.sections.slice(3)) putSection(paper, s);
  if (report.cost) {
    paper.heading(2, 'What it costs', 90);
    const right = { align: 'right' } as const;
    paper.table(
      [
        { head: 'For', width: 0 },
        { head: 'How much', width: 130, style: right },
        { head: 'Sum', width: 100, style: right },
      ],
      [
        ...report.cost.lines.map((line) => line.map((text) => ({ text }))),
        [
          { text: 'In all', style: { face: 'bold' } },
          { text: '' },
          { text: report.cost.total, style: { face: 'bold' } },
        ],
      ],
    );
    paper.paragraph(report.cost.answer);
  }
  paper.space(24);
  paper.paragraph(report.signed ? tr`Signed: ${report.signed}` : 'Signature:');
  return paper;
}

const STATES = { done: COLOURS.eelgrass, open: COLOURS.ochre, failed: COLOURS.rust } as const;

function forFile(view: ReportView, photos: readonly ReportPhoto[]): Paper {
  const report = fileReport(view);
  const paper = new Paper({ title: report.title, subject: view.job.job.complaint });
  paper.heading(1, report.title);
  for (const [name, value] of report.facts) paper.fact(name, value);
  for (const s of report.sections) putSection(paper, s);
  paper.heading(2, 'Proof');
  for (const c of report.checks)
    paper.fact(c.state, `${c.label}. ${c.why}`, { face: 'bold', colour: STATES[c.state] }, 40);
  for (const r of view.recordings) {
    paper.heading(2, tr`Recording: ${r.name}`, 90);
    for (const line of r.lines) paper.paragraph(line);
    if (r.picture) putRecorded(paper, r.picture);
  }
  for (const run of view.runs) putRun(paper, run);
  if (photos.length > 0) {
    paper.newPage();
    paper.heading(2, 'Photos');
    paper.pictures(photos.map(captioned), 2, 190);
  }
  paper.heading(2, 'Trail');
  paper.paragraph(report.head);
  for (let i = 0; i < report.trail.length; i += TOGETHER)
    paper.paragraph(`${report.trail.slice(i, i + TOGETHER).join('; ')}.`, { size: 7 });
  return paper;
}

/** Events of the trail in one paragraph. */
const TOGETHER = 30;

/** Of a run that would start so low on a page, the posts and their table would be torn apart. */
const ROOM_FOR_A_RUN = 420;

function putRun(paper: Paper, run: RunView): void {
  const facts = reportFacts(run);
  paper.need(ROOM_FOR_A_RUN);
  paper.space(10);
  paper.heading(2, facts.title);
  for (const [name, value] of facts.facts.slice(4)) paper.fact(name, value);
  if (facts.unconfirmed.length > 0)
    paper.paragraph(tr`Not confirmed: ${facts.unconfirmed.join(', ')}.`, { face: 'bold', colour: COLOURS.ochre });
  putPosts(paper, run);
  paper.paragraph(run.judgement.summary, { face: 'bold', size: 11 }, 6);
  putReadings(paper, facts);
}
