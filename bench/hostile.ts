import { seededRandom } from '../core/numerics/random';
import { v7 } from 'uuid';
import { BODY_EXAMPLES } from './hostile-bodies';
import { type Case, CASES, urlOf } from '../e2e/routes';
import { report } from './measure';
import { StolenTime } from './stolen-time';
import { signInAs } from './writes';

/**
 * So many bodies; a million take an hour or two, and the seed says which they were. SIGTERM ends it with what
 * was sent.
 */
const BODIES = Number(process.env.MUDFLAT_BODIES ?? 5000);
const SEED = Number(process.env.MUDFLAT_SEED ?? 1);
/** Only routes with this in their name. */
const ROUTES = process.env.MUDFLAT_ROUTES ?? '';
const AT_ONCE = 8;
/** No answer may take longer. */
const HANG_ms = 1000;
/** Where other machines had more of the processors than this, an answer is late because of them. */
const STOLEN = 0.1;

const EVIL: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1e308,
  1e-320,
  2 ** 53,
  2147483648,
  '',
  ' ',
  '\0',
  'a\0b',
  '\ud800',
  '\u202e\u200b\ufeff',
  "'; drop table reading; --",
  '%00',
  '../../etc/passwd',
  '<script>alert(1)</script>',
  '${7*7}{{7*7}}',
  'x'.repeat(300),
  'x'.repeat(100_000),
  '👩‍🔧'.repeat(50),
  '0001-01-01T00:00:00Z',
  '9999-12-31T23:59:60Z',
  'NaN',
  '1e999',
  '-',
  [],
  [[]],
  {},
  { __proto__: null, constructor: 1 },
  { $ref: '#' },
  Array.from({ length: 2000 }, (_, i) => i),
  '00000000-0000-0000-0000-000000000000',
];

type Random = () => number;
const pick = <T>(all: readonly T[], random: Random): T => all[Math.floor(random() * all.length)] as T;

/**
 * A body with one to three places of it replaced, left out, doubled or added; now and then nested out of all
 * proportion.
 */
function mutated(body: unknown, random: Random): unknown {
  let result: unknown = structuredClone(body);
  for (let n = 1 + Math.floor(random() * 3); n > 0; n--) result = once(result, random);
  return random() < 0.01 ? nested(400, result) : result;
}

function once(value: unknown, random: Random): unknown {
  if (value === null || typeof value !== 'object') return pick(EVIL, random);
  const entries: [string, unknown][] = Object.entries(value);
  if (entries.length === 0 || random() < 0.05) return pick(EVIL, random);
  const [key, inner] = pick(entries, random);
  const how = random();
  const next: [string, unknown][] =
    how < 0.1
      ? entries.filter(([k]) => k !== key)
      : how < 0.2
        ? [...entries, [JSON.stringify(pick(EVIL, random)).slice(0, 50), pick(EVIL, random)]]
        : how < 0.45
          ? entries.map(([k, v]) => (k === key ? [k, pick(EVIL, random)] : [k, v]))
          : entries.map(([k, v]) => (k === key ? [k, once(inner, random)] : [k, v]));
  return Array.isArray(value) ? next.map(([, v]) => v) : Object.fromEntries(next);
}

function nested(depth: number, core: unknown): unknown {
  let value = core;
  for (let i = 0; i < depth; i++) value = i % 2 ? [value] : { a: value };
  return value;
}

/** Text that is nearly JSON, or a file that is nearly of its kind. */
function damaged(text: string, random: Random): string {
  const at = Math.floor(random() * (text.length + 1));
  return pick(
    [
      text.slice(0, at),
      text.slice(at),
      `${text.slice(0, at)}\0${text.slice(at)}`,
      `${text}${text}`,
      text.replace(/[,:]/, ';'),
    ],
    random,
  );
}

interface Fault {
  readonly what: string;
  readonly sent: string;
}

/**
 * Hostile bodies to every route that takes one, as a lead of all depots: what may be answered with neither
 * 5xx nor silence.
 */
export async function benchHostile(base: string): Promise<void> {
  const cookie = await signInAs(base, 'Odile Brandt');
  const random = seededRandom(SEED);
  // Sign-in has its own limits on tries, and signing out would end this.
  const routes = CASES.filter(
    (c) => c.method === 'POST' && !c.route.startsWith('session') && c.route !== 'set-up' && c.route.includes(ROUTES),
  );
  const faults: Fault[] = [];
  const late: Fault[] = [];
  const machine = new StolenTime();
  let [sent, slowest, lateByMachine, isEnded] = [0, 0, 0, false];
  process.once('SIGTERM', () => (isEnded = true));
  async function one(): Promise<void> {
    const rule = pick(routes, random);
    const body = bodyOf(rule, random);
    const start = performance.now();
    const outcome = await post(`${base}${urlOf(rule)}`, cookie, body.type, body.text);
    const took_ms = performance.now() - start;
    sent += 1;
    const wrong = wrongWith(outcome);
    const stolen = took_ms > HANG_ms ? machine.since(start) : 0;
    if (stolen <= STOLEN) slowest = Math.max(slowest, took_ms);
    if (wrong) faults.push({ what: `${rule.route}: ${wrong}`, sent: body.text.slice(0, 500) });
    else if (took_ms > HANG_ms && stolen <= STOLEN)
      late.push({ what: `${rule.route}: ${Math.round(took_ms)} ms`, sent: body.text.slice(0, 500) });
    else if (took_ms > HANG_ms) lateByMachine += 1;
  }
  const memory_MB: number[] = [];
  const watch = setInterval(() => void residentOf(base).then((mb) => memory_MB.push(mb)), MEMORY_EVERY_ms);
  async function many(): Promise<void> {
    while (sent < BODIES && !isEnded) await one();
  }
  const started = performance.now();
  await Promise.all(Array.from({ length: AT_ONCE }, many));
  machine.stop();
  clearInterval(watch);
  const minutes = (performance.now() - started) / 60_000;
  report(`hostile bodies over ${routes.length} routes, seed ${SEED}`, sent, `in ${minutes.toFixed(1)} min`, null);
  report('answered with 5xx, a stack, or not at all', faults.length, '', null);
  report('answered later than 1 s', late.length, '', null);
  report('the same while other machines had the processors', lateByMachine, '', null);
  report('slowest answer while they had not', slowest, 'ms', HANG_ms);
  if (memory_MB.length) {
    const tenth = memory_MB[Math.floor(memory_MB.length / 10)] ?? 0;
    report(
      'memory of the server after a tenth, and at most',
      Math.max(...memory_MB),
      `MB of ${tenth.toFixed(0)}`,
      null,
    );
  }
  for (const f of [...faults, ...late].slice(0, 30)) process.stdout.write(`  ${f.what}\n    ${f.sent}\n`);
}

const MEMORY_EVERY_ms = 10_000;

async function residentOf(base: string): Promise<number> {
  const text = await fetch(`${base}/api/metrics`).then(
    (r) => r.text(),
    () => '',
  );
  return Number(/kind="resident"} (\d+)/.exec(text)?.[1] ?? 0) / 1e6;
}

/** What is wrong with an answer, however long it took; `null`: nothing. */
export function wrongWith(outcome: { readonly status: number; readonly text: string }): string | null {
  if (outcome.status === 0) return `no answer: ${outcome.text}`;
  if (outcome.status >= 500) return `${outcome.status}`;
  return /\n\s+at |node_modules|\.tsx?:\d/.test(outcome.text) ? 'a stack in the answer' : null;
}

function bodyOf(rule: Case, random: Random): { type: string; text: string } {
  if (rule.text) {
    const [type, text] = rule.text;
    return { type, text: damaged(random() < 0.5 ? text : pick(BODY_EXAMPLES.files, random), random) };
  }
  const examples = BODY_EXAMPLES.json[rule.route];
  const body = examples && random() < 0.7 ? pick(examples, random)() : (rule.body?.() ?? {});
  const text = JSON.stringify(mutated({ id: v7(), by: 'Odile Brandt', ...body }, random));
  return { type: 'application/json', text: random() < 0.03 ? damaged(text, random) : text };
}

/** Sends a body; status 0: no answer within `patience_ms`. */
export async function post(
  url: string,
  cookie: string,
  type: string,
  content: string | Buffer,
  patience_ms = 10_000,
): Promise<{ status: number; text: string }> {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': type, cookie },
      body: typeof content === 'string' ? content : new Uint8Array(content),
      signal: AbortSignal.timeout(patience_ms),
    });
    return { status: response.status, text: (await response.text()).slice(0, 4000) };
  } catch (error) {
    return { status: 0, text: String(error) };
  }
}
