import type { BrowserContext, Page } from '@playwright/test';

// Every page that can be reached from the yard by links, in whatever state the demo has it: nothing is said
// that makes no sense, nothing fails in the browser, everything has a name, every link leads somewhere, and
// no page is fetched before its link is followed.

const NONSENSE = /\bundefined\b|\bNaN\b|\[object |\bInfinity\b|\bnull\b/;
/**
 * Of pages that differ by nothing but what they are about, so many: of jobs and runs, of their prints and
 * files, with another query.
 */
const mostOf = (url: URL, whole: boolean): number =>
  /^\/(jobs|runs)\/[^/]+$/.test(url.pathname) && !url.search ? (whole ? 14 : 4) : 3;
const kindOf = (url: URL): string =>
  url.pathname.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/, '*') + [...url.searchParams.keys()].join();

interface Seen {
  readonly text: string;
  readonly links: readonly string[];
  readonly twice: readonly string[];
  readonly nameless: readonly string[];
  readonly headings: number;
}

const look = (page: Page): Promise<Seen> =>
  page.evaluate(() => {
    const all = [...document.querySelectorAll('[id]')].map((e) => e.id);
    const named = (e: Element): boolean =>
      !!(
        e.textContent.trim() ||
        e.getAttribute('aria-label') ||
        e.getAttribute('aria-labelledby') ||
        e.getAttribute('title') ||
        e.querySelector('img[alt]:not([alt=""])') ||
        (e instanceof HTMLInputElement || e instanceof HTMLSelectElement || e instanceof HTMLTextAreaElement
          ? e.labels?.length
          : 0)
      );
    return {
      text: document.body.innerText,
      links: [...document.querySelectorAll<HTMLAnchorElement>('a[href]')].map((a) => a.getAttribute('href') ?? ''),
      twice: all.filter((id, i) => all.indexOf(id) !== i),
      nameless: [...document.querySelectorAll('button, a[href], input, select, textarea')]
        .filter(
          (e) => !named(e) && !e.closest('[aria-hidden="true"], [hidden]') && (e as HTMLInputElement).type !== 'hidden',
        )
        .map((e) => e.outerHTML.slice(0, 120)),
      headings: document.querySelectorAll('h1').length,
    };
  });

/** Goes to every page and says what is wrong with it. `onPage` looks at each as well. */
export async function everyPage(
  context: BrowserContext,
  page: Page,
  baseURL: string,
  isWhole: boolean,
  onPage: (url: URL) => Promise<void> = () => Promise.resolve(),
): Promise<{ readonly wrong: string[]; readonly visited: ReadonlySet<string> }> {
  const wrong: string[] = [];
  let at = '/';
  page.on('pageerror', (e) => wrong.push(`${at}: ${e.message}`));
  page.on('console', (m) => {
    if (m.type() === 'error') wrong.push(`${at}: ${m.text()} ${m.location().url}`);
  });
  page.on('request', (r) => {
    if (r.headers()['next-router-prefetch'] !== undefined) wrong.push(`${at}: fetches ${r.url()} ahead`);
  });
  const queue = ['/'];
  const visited = new Set<string>();
  const ofKind = new Map<string, number>();
  for (let path = queue.shift(); path !== undefined; path = queue.shift()) {
    at = path;
    if (visited.has(path)) continue;
    visited.add(path);
    if (path.startsWith('/api/')) {
      const answer = await context.request.get(path);
      if (answer.status() >= 400) wrong.push(`${path}: ${answer.status()}`);
      continue;
    }
    const answer = await page.goto(path);
    if ((answer?.status() ?? 0) >= 400) wrong.push(`${path}: ${answer?.status()}`);
    await page.getByRole('main').first().waitFor();
    const seen = await look(page);
    wrong.push(...wrongWith(path, seen));
    await onPage(new URL(path, baseURL));
    for (const href of seen.links) {
      const url = new URL(href, `${baseURL}${path}`);
      if (url.origin !== new URL(baseURL).origin) {
        wrong.push(`${path}: leads out to ${href}`);
        continue;
      }
      const next = url.pathname + url.search;
      const kind = kindOf(url);
      const times = ofKind.get(kind) ?? 0;
      if (visited.has(next) || queue.includes(next) || times >= mostOf(url, isWhole)) continue;
      ofKind.set(kind, times + 1);
      queue.push(next);
    }
  }
  return { wrong, visited };
}

function wrongWith(path: string, seen: Seen): string[] {
  const bad = NONSENSE.exec(seen.text);
  return [
    ...(bad ? [`${path}: says "${seen.text.slice(Math.max(0, bad.index - 40), bad.index + 40)}"`] : []),
    ...(seen.twice.length ? [`${path}: ids twice: ${seen.twice.join()}`] : []),
    ...(seen.nameless.length ? [`${path}: nameless: ${seen.nameless.join()}`] : []),
    ...(seen.headings === 1 ? [] : [`${path}: ${seen.headings} first headings`]),
  ];
}
