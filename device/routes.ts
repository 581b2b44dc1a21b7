/**
 * The HTTP API on a device without the server: the same route handlers, over the device's own database. What
 * is not listed needs the server.
 */
import * as codesOfDepot from '../app/api/depots/[id]/codes/route';
import * as jobs from '../app/api/jobs/route';
import * as codes from '../app/api/jobs/[id]/codes/route';
import * as codesBack from '../app/api/jobs/[id]/codes/take-back/route';
import * as evidence from '../app/api/jobs/[id]/evidence/route';
import * as evidenceBack from '../app/api/jobs/[id]/evidence/take-back/route';
import * as findings from '../app/api/jobs/[id]/findings/route';
import * as intake from '../app/api/jobs/[id]/intake/route';
import * as notes from '../app/api/jobs/[id]/notes/route';
import * as photos from '../app/api/jobs/[id]/photos/route';
import * as plan from '../app/api/jobs/[id]/plan/route';
import * as records from '../app/api/jobs/[id]/records/route';
import * as tests from '../app/api/jobs/[id]/tests/route';
import * as verify from '../app/api/jobs/[id]/verify/route';
import * as photo from '../app/api/photos/[id]/route';
import * as runs from '../app/api/runs/route';
import * as run from '../app/api/runs/[id]/route';
import * as caseOfRun from '../app/api/runs/[id]/case/route';
import * as circumstances from '../app/api/runs/[id]/circumstances/route';
import * as next from '../app/api/runs/[id]/next/route';
import * as override from '../app/api/runs/[id]/override/route';
import * as readings from '../app/api/runs/[id]/readings/route';
import * as testLeads from '../app/api/test-leads/route';
import * as units from '../app/api/units/route';
import * as parts from '../app/api/units/[id]/parts/route';

type Context = { params: Promise<{ id: string }> };
type Handler = (request: Request, context: Context) => Promise<Response>;
interface Route {
  readonly GET?: Handler;
  readonly POST?: Handler;
}

const ROUTES: Readonly<Record<string, Route>> = {
  '/api/depots/:id/codes': codesOfDepot,
  '/api/jobs': jobs,
  '/api/jobs/:id/codes': codes,
  '/api/jobs/:id/codes/take-back': codesBack,
  '/api/jobs/:id/evidence': evidence,
  '/api/jobs/:id/evidence/take-back': evidenceBack,
  '/api/jobs/:id/findings': findings,
  '/api/jobs/:id/intake': intake,
  '/api/jobs/:id/notes': notes,
  '/api/jobs/:id/photos': photos,
  '/api/jobs/:id/plan': plan,
  '/api/jobs/:id/records': records,
  '/api/jobs/:id/tests': tests,
  '/api/jobs/:id/verify': verify,
  '/api/photos/:id': photo,
  '/api/runs': runs,
  '/api/runs/:id': run,
  '/api/runs/:id/case': caseOfRun,
  '/api/runs/:id/circumstances': circumstances,
  '/api/runs/:id/next': next,
  '/api/runs/:id/override': override,
  '/api/runs/:id/readings': readings,
  '/api/test-leads': testLeads,
  '/api/units': units,
  '/api/units/:id/parts': parts,
};

/** The handler of a request and the id in its path; `null`: only the server can do it. */
export function routeOf(method: string, pathname: string): { readonly handle: Handler; readonly id: string } | null {
  const parts_ = pathname.split('/');
  for (const [pattern, route] of Object.entries(ROUTES)) {
    const wanted = pattern.split('/');
    if (wanted.length !== parts_.length || wanted.some((w, i) => w !== ':id' && w !== parts_[i])) continue;
    const handle = method === 'GET' ? route.GET : method === 'POST' ? route.POST : undefined;
    return handle ? { handle, id: parts_[wanted.indexOf(':id')] ?? '' } : null;
  }
  return null;
}

/** Paths that are answered here, as `METHOD /path/:id`. */
export const DEVICE_ROUTES = Object.entries(ROUTES).flatMap(([pattern, r]) =>
  (['GET', 'POST'] as const).flatMap((method) => (r[method] ? [`${method} ${pattern}`] : [])),
);
