import { writeFileSync } from 'node:fs';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';
import { type Signal, SIGNALS, simulateLogger, type SimulatedFault } from '../core/simulate/logger';
import { type Place, PLACES } from '../core/simulate/sensor-pin';
import { DIALECTS, type WrittenDialect, writeSimulated } from '../formats/trace/write-simulated';

export const LOGGER_USAGE = `./mudflat logger FILE [--seconds 600] [--rate 100] [--seed 1] [--noise 0.004] [--dialect ${DIALECTS.join('|')}]
                      [--fault SIGNAL:PLACE:AT_s:SECONDS[:OHM]]...   SIGNAL ${SIGNALS.join('|')}, PLACE ${PLACES.join('|').replaceAll(' ', '-')}`;

/** A recording of an invented journey, as the file of a logger. */
export function writeLogger(file: string, args: readonly string[]): Result<unknown> {
  const numbers: Record<string, number> = { seconds: 600, rate: 100, seed: 1, noise: 0.004 };
  const most: Readonly<Record<string, number>> = { seconds: 86_400, rate: 10_000, seed: 2 ** 31, noise: 1 };
  let dialect: WrittenDialect = file.endsWith('.wav') ? 'wav' : file.endsWith('.log') ? 'can' : 'plain';
  const faults: SimulatedFault[] = [];
  const problems: Problem[] = [];
  for (let i = 0; i < args.length; i += 2) {
    const [name, value] = [(args[i] ?? '').replace(/^--/, ''), args[i + 1] ?? ''];
    const known = numbers[name];
    if (known !== undefined) {
      const number = Number(value);
      if (number > 0 && number <= (most[name] ?? Infinity)) numbers[name] = number;
      else problems.push({ path: `--${name}`, message: `A number above 0, at most ${most[name] ?? ''}.` });
    } else if (name === 'dialect' && DIALECTS.includes(value as WrittenDialect)) dialect = value as WrittenDialect;
    else if (name === 'fault') {
      const fault = faultOf(value);
      if (fault) faults.push(fault);
      else problems.push({ path: '--fault', message: `"${value}" is no SIGNAL:PLACE:AT_s:SECONDS[:OHM].` });
    } else
      problems.push({ path: args[i] ?? '', message: `Unknown, or without a value that it can have. ${LOGGER_USAGE}` });
  }
  if (problems.length) return fail(problems);
  const { seconds = 600, rate = 100, seed = 1, noise = 0.004 } = numbers;
  const settings = {
    seconds,
    rate_Hz: rate,
    seed,
    noise_V: noise,
    step_V: 0.001,
    faults,
    scan: { rate_Hz: 4, delay_s: 0.3 },
  };
  const bytes = writeSimulated(simulateLogger(settings), dialect);
  writeFileSync(file, bytes);
  return ok({ file, dialect, bytes: bytes.length, seconds, rate_Hz: rate, seed, faults });
}

function faultOf(text: string): SimulatedFault | null {
  const [signal, place, at, long, ohm, ...rest] = text.split(':');
  const where = (place ?? '').replaceAll('-', ' ');
  const [at_s, seconds] = [Number(at), Number(long)];
  const ohms = ohm === undefined ? null : Number(ohm);
  const isSound =
    rest.length === 0 &&
    SIGNALS.includes(signal as Signal) &&
    PLACES.includes(where as Place) &&
    at_s >= 0 &&
    seconds > 0 &&
    (ohms === null || ohms > 0);
  return isSound ? { signal: signal as Signal, place: where as Place, at_s, seconds, ohms } : null;
}
