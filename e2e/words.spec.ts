import { expect, type Page, test } from '@playwright/test';
import pg from 'pg';
import { v7 } from 'uuid';
import { DEMO_PIN, PERSONS } from '../demo/fleet';
import { PSEUDO, pseudo } from '../core/locale/pseudo';
import { freshDevice } from './bench-page';
import { everyPage } from './every-page';

// In the pseudo-language no text of the application has a plain letter left. What still has some is
// hard-wired: no translation would reach it. What people have written, names, units and file formats stay as
// they are.

/** Written so in every language. */
const SYMBOLS =
  /\b(?:[A-Z]{3}|Mudflat|kPa|MPa|bar|psi|rpm|Nm|lbf|min|OL|EUR|SPN|FMI|CSV|PDF|JSON|WAV|CAN|DM1|SHA|DTC|ECU|Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec|UTC|Steinhart-Hart|\w+\/[\w/+-]+)\b/g;
const WORD = /\p{Script=Latin}*[A-Za-z]{3}\p{Script=Latin}*/u;

/** Whatever stands in the database: people have written it, or it is an id. */
async function written(): Promise<Set<string>> {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  const all = new Set<string>();
  const note = (value: unknown): void => {
    if (typeof value === 'string') for (const line of [value, ...value.split('\n')]) all.add(line.trim());
    else if (Array.isArray(value)) value.forEach(note);
    else if (value !== null && typeof value === 'object' && !(value instanceof Date) && !Buffer.isBuffer(value))
      Object.values(value).forEach(note);
  };
  const { rows: tables } = await client.query<{ name: string }>(
    `select table_name as name from information_schema.tables where table_schema = 'public' and table_name not in ('job_standing', 'trace_block')`,
  );
  for (const { name } of tables) for (const row of (await client.query(`select * from "${name}"`)).rows) note(row);
  await client.end();
  return all;
}

/** Texts of the page, also those that only a screen reader says, each with the element it stands in. */
const textsOf = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const shown: string[] = [];
    const own = ['code', 'pre', 'script', 'style', 'textarea', '[data-own-words]'].join();
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let n = walker.nextNode(); n; n = walker.nextNode())
      if (n.parentElement && !n.parentElement.closest(own)) shown.push(n.textContent ?? '');
    for (const e of document.querySelectorAll('[aria-label], [title], [placeholder], [alt], [aria-valuetext]'))
      for (const name of ['aria-label', 'title', 'placeholder', 'alt', 'aria-valuetext'])
        if (!e.closest(own)) shown.push(e.getAttribute(name) ?? '');
    return [document.title, ...shown].map((t) => t.trim()).filter(Boolean);
  });

/** What of a text is hard-wired; empty: nothing. */
function hardWired(text: string, own: ReadonlySet<string>, longestFirst: readonly string[]): string {
  if (own.has(text)) return '';
  let rest = text;
  for (const o of longestFirst) if (WORD.test(rest) && rest.includes(o)) rest = rest.replaceAll(o, '');
  return WORD.exec(rest.replace(SYMBOLS, ''))?.[0] ?? '';
}

/** What opens a form: where it is, and how its name begins. Each is only looked at. */
const FORMS: readonly [path: string, names: readonly string[]][] = [
  ['/', ['Unit', 'Job from elsewhere', 'Open a job for', 'Sums']],
  ['/shelf', ['Limits', 'In', 'Any engine']],
  ['/instruments', ['Instrument', 'From a list', 'Change']],
  ['/people', ['Add a person', 'From a list', 'Change']],
  ['/workshop', ['Depot', 'Engine family', 'Unit', 'From a list', 'Change']],
  ['/catalogue', ['Battery at rest', 'Glow plugs, at the plug']],
  ['/circuits', ['Copy and change']],
  ['/service-data', ['From a list', 'Connector', 'Enter']],
];
const OF_A_JOB = [
  ...['Swap', 'Cut-out', 'Wiggle', 'Seen', 'New part', 'Drive', 'Recording', 'Capture', 'Scan tool', 'Found good'],
  ...['Mechanics', 'Mended', 'Another test', 'Change the order', 'Write a finding'],
];

const LEAD = PERSONS.find((p) => p.role === 'lead' && p.depot === null) ?? PERSONS[0];
/**
 * Of the demo: its ids are made of names. What other tests have begun is there today and another tomorrow, in
 * their words.
 */
const isOfDemo = (url: URL): boolean => !/[0-9a-f]{8}-[0-9a-f]{4}-[^5][0-9a-f]{3}-/.test(url.pathname);
const kindOf = (url: URL): string => url.pathname.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/, '*');

test('every page of the demo as a lead sees it, with every text of it out of the catalogue', async ({
  browser,
  baseURL,
}) => {
  test.slow();
  const lead = await freshDevice(browser, baseURL, LEAD.name);
  const name = `Reader ${Date.now() % 100_000}`;
  const added = await lead.request.post('/api/people', {
    data: { id: v7(), name, role: 'lead', depotId: null, pin: `${DEMO_PIN}7` },
  });
  expect(added.status()).toBe(201);
  await lead.close();

  // What other tests change meanwhile may have stood on a page before, or after.
  const before = await written();
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] }, baseURL: baseURL ?? '' });
  await context.request.post('/api/session/sign-in', { data: { name, pin: `${DEMO_PIN}7` } });
  const locale = { language: PSEUDO, decimal: 'comma', units: 'given', dates: 'dmy' };
  expect((await context.request.post('/api/session/locale', { data: { locale } })).ok()).toBe(true);

  const page = await context.newPage();
  /** Texts with a plain letter in them, and where they stood. */
  const seen = new Map<string, string>();
  const look = async (where: string): Promise<void> => {
    for (const text of await textsOf(page)) if (WORD.test(text.replace(SYMBOLS, ''))) seen.set(text, where);
  };
  const { wrong, visited } = await everyPage(context, page, baseURL ?? '', true, async (url) => {
    if (isOfDemo(url)) await look(kindOf(url));
  });
  let opened = 0;
  const job = [...visited].find((p) => /^\/jobs\/[^/]+$/.test(p)) ?? '/';
  for (const [path, names] of [...FORMS, [job, OF_A_JOB] as const]) {
    await page.goto(path);
    for (const name of names) {
      const button = page.getByRole('button', { name: new RegExp(`^${pseudo(name)}`) }).first();
      // What a job offers depends on where it stands.
      if (path === job && !(await button.count())) continue;
      await button.click();
      const dialog = page.getByRole('dialog').first();
      await dialog.waitFor({ timeout: 1000 }).catch(() => undefined);
      opened += 1;
      await look(`${kindOf(new URL(path, baseURL))}, ${name}`);
      // Closed by its key; what opened in the page itself is left by opening the page anew.
      const isDialog = await dialog.isVisible();
      if (isDialog) await page.keyboard.press('Escape');
      const isClosed = await dialog.waitFor({ state: 'hidden', timeout: 1000 }).then(() => true, () => false); // prettier-ignore
      if (!isDialog || !isClosed) await page.goto(path);
    }
  }
  await context.close();
  const own = new Set([...before, ...(await written())]);
  const longestFirst = [...own].filter((o) => WORD.test(o)).toSorted((a, b) => b.length - a.length);
  for (const [text, where] of seen) {
    const bad = hardWired(text, own, longestFirst);
    if (bad) wrong.push(`${where}: "${bad}" in "${text.slice(0, 120)}"`);
  }
  expect(wrong).toEqual([]);
  expect(visited.size).toBeGreaterThan(45);
  expect(opened).toBeGreaterThan(25);
});
