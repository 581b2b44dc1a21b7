import { createServer } from 'node:http';
import { parseArgs } from 'node:util';
import { CIRCUITS } from '../core/circuits/library';
import { simulateCanLog, simulateScan, type ScanScene } from '../core/simulate/scan-tool';
import { engineOf, readFault, runUntilStopped, UsageError, whole } from './simulated';

const USAGE = `./mudflat scantool [options]   what a scan tool would show of the simulated engine
  --circuit ID         a circuit of the library (glow-relay)
  --cylinders N        8;  --vee for two banks
  --fault "ELEMENT open" | "ELEMENT short" | "ELEMENT series OHMS"     again for more
  --running            the engine runs
  --print              writes the document (mudflat/scan) to standard output, and ends
  --can                with --print: a CAN log in text form instead
  --port N             else serves them at /scan and /can (8026), on loopback only`;
const CAN_s = 20;

function main(args: readonly string[]): void {
  const { values } = parseArgs({
    args: [...args],
    options: {
      circuit: { type: 'string', default: 'glow-relay' },
      cylinders: { type: 'string', default: '8' },
      vee: { type: 'boolean', default: false },
      fault: { type: 'string', multiple: true, default: [] },
      running: { type: 'boolean', default: false },
      print: { type: 'boolean', default: false },
      can: { type: 'boolean', default: false },
      port: { type: 'string', default: '8026' },
      help: { type: 'boolean', default: false },
    },
  });
  if (values.help) {
    process.stdout.write(`${USAGE}\n`);
    return;
  }
  const circuit = CIRCUITS.find((c) => c.id === values.circuit);
  if (!circuit)
    throw new UsageError(`There is no circuit ${values.circuit}; there are ${CIRCUITS.map((c) => c.id).join(', ')}.`);
  const scene: ScanScene = {
    circuit,
    engine: engineOf(values),
    faults: values.fault.map(readFault),
    isRunning: values.running,
  };
  const document = (): string => `${JSON.stringify(simulateScan(scene), null, 2)}\n`;
  const can = (): string => simulateCanLog(scene, CAN_s);
  if (values.print) process.stdout.write(values.can ? can() : document());
  else serve(whole(values.port, 'port'), { '/scan': ['application/json', document], '/can': ['text/plain', can] });
}

function serve(port: number, pages: Readonly<Record<string, readonly [type: string, text: () => string]>>): void {
  const server = createServer((request, response) => {
    const page = pages[new URL(request.url ?? '/', 'http://localhost').pathname];
    if (page) response.writeHead(200, { 'content-type': page[0] }).end(page[1]());
    else response.writeHead(404, { 'content-type': 'text/plain' }).end('There are /scan and /can.\n');
  });
  server.on('error', (error) => {
    process.stderr.write(`${error.message}\n`);
    process.exitCode = 1;
  });
  server.listen(port, '127.0.0.1', () =>
    process.stdout.write(`Scan tool at http://127.0.0.1:${port}/scan and http://127.0.0.1:${port}/can\n`),
  );
}

runUntilStopped(main, USAGE);
