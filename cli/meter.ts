import { spawn } from 'node:child_process';
import { createServer as createHttp, type IncomingMessage, type ServerResponse } from 'node:http';
import { createServer, type Server, type Socket } from 'node:net';
import type { Writable } from 'node:stream';
import { parseArgs } from 'node:util';
import { CIRCUITS } from '../core/circuits/library';
import { LineCutter } from '../core/instrument/lines';
import { seededRandom } from '../core/numerics/random';
import { lineOf, SimulatedMeter } from '../core/simulate/meter';
import { ScpiMeter } from '../core/simulate/scpi-meter';
import { METER_PAGE } from './meter-page';
import { engineOf, readFault, runUntilStopped, UsageError, whole } from './simulated';

const USAGE = `./mudflat meter [options]      a simulated meter: SCPI over TCP, lines over HTTP, and a page to move its probes
  --test ID            the test whose positions can be touched (glow-plug-resistance)
  --circuit ID         a circuit of the library (the first that this test reads)
  --cylinders N        8;  --vee for two banks
  --fault "ELEMENT open" | "ELEMENT short" | "ELEMENT series OHMS" | "ELEMENT resistance OHMS"    again for more
  --wander POSITION    its contact does not come to rest; again for more
  --port N             SCPI (5025);  --page N the page and the lines (8025);  both on loopback only
  --terminal PATH      the lines through a pseudo terminal too, as a serial adapter would bring them (needs socat)
  --rate HZ            lines a second (10)
  --low-battery        its battery is low
  --seed N`;
const READS_ms = 60;
const MOST_BODY = 10_000;

/** Runs until it is stopped. */
function main(args: readonly string[]): void {
  const { values } = parseArgs({
    args: [...args],
    options: {
      test: { type: 'string', default: 'glow-plug-resistance' },
      circuit: { type: 'string' },
      cylinders: { type: 'string', default: '8' },
      vee: { type: 'boolean', default: false },
      fault: { type: 'string', multiple: true, default: [] },
      wander: { type: 'string', multiple: true, default: [] },
      port: { type: 'string', default: '5025' },
      page: { type: 'string', default: '8025' },
      terminal: { type: 'string' },
      rate: { type: 'string', default: '10' },
      'low-battery': { type: 'boolean', default: false },
      seed: { type: 'string', default: '1' },
      help: { type: 'boolean', default: false },
    },
  });
  if (values.help) {
    process.stdout.write(`${USAGE}\n`);
    return;
  }
  const { test } = values;
  const circuit = CIRCUITS.find((c) =>
    values.circuit === undefined ? c.probes.some((p) => p.test === test) : c.id === values.circuit,
  );
  if (!circuit)
    throw new UsageError(
      `There is no circuit ${values.circuit ?? `that "${test}" reads`}; there are ${CIRCUITS.map((c) => c.id).join(', ')}.`,
    );
  const engine = engineOf(values);
  const meter = new SimulatedMeter({
    circuit,
    engine,
    test,
    faults: values.fault.map(readFault),
    wanders: values.wander.map((w) => (/^\d+$/.test(w) ? Number(w) : w)),
    random: seededRandom(whole(values.seed, 'seed')),
  });
  if (meter.positions().length === 0) throw new UsageError(`"${test}" does not read the circuit ${circuit.id}.`);
  meter.mode = meter.testMode();
  meter.isBatteryLow = values['low-battery'];
  const bench = new SimulatedBench(meter, whole(values.rate, 'rate'));
  bench.listen(whole(values.port, 'port'), whole(values.page, 'page'));
  if (values.terminal !== undefined) bench.speakThrough(values.terminal);
}

const now_s = (): number => performance.now() / 1000;

/** The meter's connections. Switched off, all of them break, as when its battery is empty. */
class SimulatedBench {
  private isOn = true;
  private readonly sockets = new Set<Socket>();
  private readonly readers = new Set<ServerResponse>();
  private readonly scpi: ScpiMeter;
  private terminal: Writable | null = null;

  constructor(
    private readonly meter: SimulatedMeter,
    rate_Hz: number,
  ) {
    this.scpi = new ScpiMeter(meter);
    setInterval(() => this.send(), 1000 / rate_Hz);
  }

  listen(port: number, page: number): void {
    const scpi: Server = createServer((socket) => this.serve(socket));
    const http = createHttp((request, response) => void this.answer(request, response));
    const failed = (error: Error): void => {
      process.stderr.write(`${error.message}\n`);
      process.exit(1);
    };
    scpi.on('error', failed).listen(port, '127.0.0.1', () => {
      http.on('error', failed).listen(page, '127.0.0.1', () => {
        process.stdout.write(
          `SCPI at 127.0.0.1 port ${port}. Probes at http://127.0.0.1:${page}, lines at http://127.0.0.1:${page}/lines\n`,
        );
      });
    });
  }

  /** Opens a pseudo terminal at a path; whoever opens it reads the lines of the meter. */
  speakThrough(path: string): void {
    const child = spawn('socat', ['-u', '-', `pty,raw,echo=0,link=${path}`], { stdio: ['pipe', 'ignore', 'inherit'] });
    const failed = (why: string): void => {
      process.stderr.write(`No terminal at ${path}: ${why}\n`);
      process.exit(1);
    };
    child.on('error', () => failed('socat is not installed (Debian package socat).'));
    child.on('exit', () => failed('socat has ended.'));
    child.stdin.on('error', () => undefined);
    this.terminal = child.stdin;
    process.on('exit', () => child.kill());
    process.stdout.write(`Lines at ${path}\n`);
  }

  private line(): string {
    return lineOf(this.meter.show(now_s()), this.meter.mode, this.meter.isBatteryLow ? ['LOBAT'] : []);
  }
  private send(): void {
    if (!this.isOn) return;
    const line = `${this.line()}\r\n`;
    for (const r of this.readers) r.write(line);
    this.terminal?.write(line);
  }

  private serve(socket: Socket): void {
    if (!this.isOn) {
      socket.destroy();
      return;
    }
    this.sockets.add(socket);
    const cutter = new LineCutter();
    socket.on('error', () => undefined);
    socket.on('close', () => this.sockets.delete(socket));
    socket.on('data', (bytes) => {
      for (const line of cutter.push(bytes).lines)
        // A measurement takes its time.
        setTimeout(
          () => {
            const answer = this.isOn ? this.scpi.answer(line, now_s()) : null;
            if (answer !== null && !socket.destroyed) socket.write(`${answer}\n`);
          },
          /READ|MEAS/i.test(line) ? READS_ms : 0,
        );
    });
  }

  private async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    response.setHeader('access-control-allow-origin', '*');
    response.setHeader('access-control-allow-headers', 'content-type');
    const path = new URL(request.url ?? '/', 'http://localhost').pathname;
    if (request.method === 'OPTIONS') response.end();
    else if (request.method === 'POST') {
      const problem = this.change(path, await bodyOf(request));
      this.json(response, problem === null ? 200 : 422, problem === null ? this.state() : { problem });
    } else if (path === '/') response.setHeader('content-type', 'text/html; charset=utf-8').end(METER_PAGE);
    else if (path === '/state') this.json(response, 200, this.state());
    else if (path === '/lines') this.stream(response);
    else this.json(response, 404, { problem: 'There is no such page.' });
  }

  private stream(response: ServerResponse): void {
    if (!this.isOn) {
      response.destroy();
      return;
    }
    response.writeHead(200, { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'no-store' });
    response.write(`${this.line()}\r\n`);
    this.readers.add(response);
    response.on('close', () => this.readers.delete(response));
  }

  private state(): object {
    const { meter } = this;
    return { on: this.isOn, mode: meter.mode, at: meter.at, positions: meter.positions(), shows: this.line() };
  }

  /** What is wrong; `null`: done. */
  private change(path: string, body: Record<string, unknown>): string | null {
    if (path === '/probe') {
      const { at } = body;
      if (typeof at !== 'number' && typeof at !== 'string') return 'at: a position, "off" or "together".';
      return this.meter.put(at, now_s()) ? null : `There is no position ${at}.`;
    }
    if (path === '/mode') {
      const mode = (['resistance', 'voltage', 'current'] as const).find((m) => m === body.mode);
      if (!mode) return 'mode: resistance, voltage or current.';
      this.meter.mode = mode;
      return null;
    }
    if (path === '/power') {
      this.isOn = body.on === true;
      if (this.isOn) return null;
      this.sockets.forEach((s) => s.destroy());
      this.readers.forEach((r) => r.destroy());
      return null;
    }
    return 'There is no such command.';
  }

  private json(response: ServerResponse, status: number, body: object): void {
    response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
  }
}

async function bodyOf(request: IncomingMessage): Promise<Record<string, unknown>> {
  let text = '';
  for await (const chunk of request) {
    text += String(chunk);
    if (text.length > MOST_BODY) return {};
  }
  try {
    const body: unknown = JSON.parse(text);
    return body !== null && typeof body === 'object' ? (body as Record<string, unknown>) : {};
  } catch {
    return {};
  }
}

runUntilStopped(main, USAGE);
