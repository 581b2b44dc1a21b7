import { demoId } from '../demo/load';
import { type Case, CASES, urlOf } from '../e2e/routes';
import { MOST_FILE_BYTES } from '../server/bundle/limits';
import { packZip, sha256, unpackZip } from '../server/bundle/zip';
import { BODY_EXAMPLES } from './hostile-bodies';
import { post, wrongWith } from './hostile';
import { GOOD_FILES, LARGE_TABLES, LARGE_VALUES } from './large-bodies';
import { report } from './measure';
import { signInAs } from './writes';

/** Nobody waits longer for what somebody else has sent. */
const HANG_ms = 1000;
/** Only routes with this in their name. */
const ROUTES = process.env.MUDFLAT_ROUTES ?? '';
/** What a command and a file may hold at most; a little less, for what stands around it. */
const COMMAND_BYTES = 1_000_000;
const FILE_BYTES = 8_000_000;
const LOOK_EVERY_ms = 10;

interface Sent {
  readonly what: string;
  readonly wrong: string | null;
  readonly took_ms: number;
  /** The longest that a colleague waited meanwhile. */
  readonly wait_ms: number;
}

/**
 * The largest bodies that each route takes, shaped to cost as much as they can; a colleague asks for
 * something small meanwhile.
 */
export async function benchLarge(base: string): Promise<void> {
  const cookie = await signInAs(base, 'Odile Brandt');
  const routes = CASES.filter(
    (c) => c.method === 'POST' && !c.route.startsWith('session') && c.route !== 'set-up' && c.route.includes(ROUTES),
  );
  const colleague = new Colleague(base, await signInAs(base, 'Odile Brandt'));
  const sent: Sent[] = [];
  const ending = new AbortController();
  process.once('SIGTERM', () => ending.abort());
  for (const rule of routes)
    for await (const { shape, type, content } of rule.route === BUNDLES ? bundlesLike(base, cookie) : bodiesOf(rule)) {
      if (ending.signal.aborted) break;
      colleague.begin();
      const start = performance.now();
      const outcome = await post(`${base}${urlOf(rule)}`, cookie, type, content, 120_000);
      const took_ms = performance.now() - start;
      const one = {
        what: `${rule.route}, ${shape}`,
        wrong: wrongWith(outcome),
        took_ms,
        wait_ms: await colleague.end(),
      };
      sent.push(one);
      if (one.wrong || one.wait_ms > HANG_ms)
        process.stdout.write(`  ${one.what}: ${one.wrong ?? `a colleague waited ${Math.round(one.wait_ms)} ms`}\n`);
    }
  await colleague.leave();
  const [wrong, hung] = [sent.filter((s) => s.wrong), sent.filter((s) => s.wait_ms > HANG_ms)];
  report(`large bodies over ${routes.length} routes`, sent.length, '', null);
  report('answered with 5xx, a stack, or not at all', wrong.length, '', null);
  report('held up a colleague for more than 1 s', hung.length, '', null);
  report('longest that a colleague waited', Math.max(...sent.map((s) => s.wait_ms)), 'ms', HANG_ms);
  report('longest until such a body was answered', Math.max(...sent.map((s) => s.took_ms)), 'ms', null);
}

/** Somebody who looks again and again, and notes how long that takes. */
class Colleague {
  private waits: { readonly at: number; readonly took_ms: number }[] = [];
  private began = 0;
  private isHere = true;
  private readonly looking: Promise<void>;

  constructor(
    private readonly base: string,
    private readonly cookie: string,
  ) {
    this.looking = this.look();
  }

  begin(): void {
    this.began = performance.now();
    this.waits = [];
  }

  /** The longest wait of a look that was under way since `begin`. */
  async end(): Promise<number> {
    const from = performance.now();
    while (!this.waits.some((w) => w.at >= from)) await sleep(LOOK_EVERY_ms);
    return Math.max(...this.waits.filter((w) => w.at + w.took_ms >= this.began).map((w) => w.took_ms));
  }

  async leave(): Promise<void> {
    this.isHere = false;
    await this.looking;
  }

  private async look(): Promise<void> {
    while (this.isHere) {
      const at = performance.now();
      await fetch(`${this.base}/api/session`, { headers: { cookie: this.cookie } }).then(
        (r) => r.arrayBuffer(),
        () => null,
      );
      this.waits.push({ at, took_ms: performance.now() - at });
      await sleep(LOOK_EVERY_ms);
    }
  }
}

const sleep = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms));

interface Body {
  readonly shape: string;
  readonly type: string;
  readonly content: string | Buffer;
}

function* bodiesOf(rule: Case): Generator<Body> {
  const files = GOOD_FILES[rule.route] ?? (rule.text ? [rule.text] : []);
  for (const [type, good] of files)
    if (type === 'application/json') yield* documentsOf(JSON.parse(good) as object, FILE_BYTES);
    else
      for (const [shape, make] of Object.entries(LARGE_TABLES)) yield { shape, type, content: make(good, FILE_BYTES) };
  const body = { ...(rule.body?.() ?? {}), ...BODY_EXAMPLES.json[rule.route]?.[0]?.() };
  if (files.length === 0) yield* documentsOf(body, COMMAND_BYTES);
}

const BUNDLES = 'bundles';

/** Bundles of a job of the demo that was made as large as one may be: each of them is a small zip. */
async function* bundlesLike(base: string, cookie: string): AsyncGenerator<Body> {
  const answer = await fetch(`${base}/api/jobs/${demoId('job', 'PL-23')}/bundle`, { headers: { cookie } });
  const good = await unpackZip(Buffer.from(await answer.arrayBuffer()));
  if (!good.ok) throw new Error(good.error);
  const job = JSON.parse(good.value.get('job.json')?.toString() ?? '') as object;
  for (const { shape, content } of documentsOf(job, MOST_FILE_BYTES.json, 2)) {
    const files = new Map([...good.value, ['job.json', Buffer.from(content)]]);
    files.delete('manifest.json');
    const lines = [...files].map(([path, bytes]) => ({ path, size: bytes.length, sha256: sha256(bytes) }));
    const manifest = { format: 'mudflat/bundle-manifest', version: 1, job: 1, unit: 'PL-23', files: lines };
    files.set('manifest.json', Buffer.from(JSON.stringify(manifest)));
    yield { shape: `job.json: ${shape}`, type: 'application/zip', content: await packZip(files) };
  }
}

/** Stands where a text of JSON is put in, which need not be one that can be made from a value. */
const HOLE = '<hole>';
/** What is put at every place of a document, however deep. */
const EVERYWHERE = ['many zeros', 'many texts', 'one long text'] as const;

/**
 * A large value instead of a document and of each of its parts, down to `deepest`, and its lists with many
 * more of what stands in them.
 */
function* documentsOf(good: object, bytes: number, deepest = Infinity): Generator<Body & { readonly content: string }> {
  const type = 'application/json';
  const room = bytes - JSON.stringify(good).length - 100;
  const put = (place: Place, text: string): string =>
    JSON.stringify(withAt(good, place.keys, HOLE)).replace(JSON.stringify(HOLE), () => text);
  for (const [shape, make] of Object.entries(LARGE_VALUES)) yield { shape, type, content: make(bytes) };
  for (const place of placesIn(good).filter((p) => p.keys.length <= deepest)) {
    const shapes = place.keys.length === 1 ? Object.keys(LARGE_VALUES) : EVERYWHERE;
    for (const shape of shapes)
      yield { shape: `${shape} as ${place.name}`, type, content: put(place, LARGE_VALUES[shape]?.(room) ?? '') };
    if (!Array.isArray(place.value) || place.value.length === 0) continue;
    const one = JSON.stringify(place.value[0]);
    const most = Math.floor(room / (one.length + 8));
    for (const times of new Set([60, 1_000, 5_000, most].map((n) => Math.min(n, most)))) {
      const items = Array.from({ length: times }, (_, n) => one.replaceAll('{n}', String(n)));
      yield { shape: `${times} ${place.name}`, type, content: put(place, `[${items.join(',')}]`) };
    }
  }
}

interface Place {
  readonly keys: readonly string[];
  readonly name: string;
  readonly value: unknown;
}

/** The parts of a document, each name once; of a list the first. */
function placesIn(document: object): readonly Place[] {
  const found = new Map<string, Place>();
  const look = (value: unknown, keys: readonly string[]): void => {
    const name = keys.filter((k) => !/^\d+$/.test(k)).join('.');
    if (keys.length && !found.has(name)) found.set(name, { keys, name, value });
    if (value === null || typeof value !== 'object') return;
    const inner = Array.isArray(value) ? Object.entries(value).slice(0, 1) : Object.entries(value);
    for (const [key, part] of inner) look(part, [...keys, key]);
  };
  look(document, []);
  return [...found.values()];
}

function withAt(value: unknown, [key, ...rest]: readonly string[], put: unknown): unknown {
  if (key === undefined) return put;
  if (Array.isArray(value)) return value.map((v, i): unknown => (String(i) === key ? withAt(v, rest, put) : v));
  const fields = value as Record<string, unknown>;
  return { ...fields, [key]: withAt(fields[key], rest, put) };
}
