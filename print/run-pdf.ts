import { tr } from '../core/locale/translate';
import type { RunView } from '../application/views';
import { reportFacts } from '../application/report/facts';
import { COLOURS, Paper } from './paper';
import { DEMO, putPosts, putReadings } from './pdf-parts';

/**
 * The printed result of a test run: A4, one page for engines up to eight cylinders. Needs Node: fonts are
 * read from disk.
 */
export function runPdf(view: RunView, isDemo = false): Promise<Buffer> {
  const report = reportFacts(view);
  const paper = new Paper({ title: report.title, subject: view.judgement.summary });
  paper.heading(1, report.title);
  for (const [name, value] of report.facts) paper.fact(name, value);
  if (report.unconfirmed.length > 0)
    paper.paragraph(tr`Not confirmed: ${report.unconfirmed.join(', ')}.`, { face: 'bold', colour: COLOURS.ochre }, 0);
  putPosts(paper, view);
  paper.aside('line', COLOURS.estuary, () => {
    paper.paragraph(view.judgement.summary, { face: 'bold', size: 11 }, 0);
    for (const a of view.judgement.advice) paper.paragraph(a);
  });
  putReadings(paper, report);
  paper.need(24 + report.cautions.reduce((sum, c) => sum + paper.heightOf(c), 0));
  paper.aside('frame', COLOURS.ochre, () => {
    paper.paragraph('Caution', { face: 'bold' }, 0);
    for (const c of report.cautions) paper.paragraph(c, {}, 0);
  });
  return paper.end(tr`${view.unit.fleetNumber}, job ${view.job.number}, test run ${view.id}${isDemo ? DEMO : ''}`);
}
