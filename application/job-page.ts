import type { JobView } from './views';

/**
 * A job as its page draws it: of the circuits the line of each, of the catalogue the tests that are named
 * there. Everything else of them has a page, or is fetched where it is asked for: it need not travel with
 * every look at a job.
 */
export function pageOfJob(view: JobView): JobView {
  const named = new Set([
    ...view.plan.steps.map((s) => s.test),
    ...[view.progress.next, ...view.progress.instead].flatMap((s) => (s?.act.do === 'measure' ? [s.act.test] : [])),
  ]);
  return {
    ...view,
    tests: view.tests.filter((t) => named.has(t.id)),
    circuits: view.circuits.map((c) => ({
      ...c,
      circuit: { ...c.circuit, values: {}, elements: [], suspects: [], probes: [] },
      diagnosis: { ...c.diagnosis, suspects: c.diagnosis.suspects.slice(0, 1), next: [] },
      expected: [],
    })),
  };
}
