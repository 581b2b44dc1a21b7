import type { MeterMode, SimulatedMeter } from './meter';

const IDENTITY = 'Pellmarsh Levels Board,Simulated Meter,0000,1.0';
const MODES: Readonly<Record<string, MeterMode>> = { RES: 'resistance', 'VOLT:DC': 'voltage', 'CURR:DC': 'current' };
const UNDEFINED_HEADER = '-113,"Undefined header"';
const MOST_ERRORS = 20;

/**
 * Answers SCPI commands for a simulated meter, after IEC 60488-2 and SCPI-99 (from memory): short forms of
 * `CONFigure`, `MEASure` and `READ?`, overload as 9.9E37, errors in a queue.
 */
export class ScpiMeter {
  private readonly errors: string[] = [];

  constructor(private readonly meter: SimulatedMeter) {}

  /** The answer to one line; `null`: it asks nothing. */
  answer(line: string, t_s: number): string | null {
    const answers = line
      .split(';')
      .map((part) => this.one(part.trim().toUpperCase().replace(/^:/, ''), t_s))
      .filter((a) => a !== null);
    return answers.length ? answers.join(';') : null;
  }

  private one(command: string, t_s: number): string | null {
    if (command === '' || command === '*RST' || command === '*CLS') return null;
    if (command === '*IDN?') return IDENTITY;
    if (command === '*OPC?') return '1';
    if (/^SYST(?:EM)?:ERR(?:OR)?\??$/.test(command)) return this.errors.shift() ?? '+0,"No error"';
    if (command === 'READ?') return this.value(t_s);
    const [, verb = '', function_ = '', asks = ''] =
      /^(CONF(?:IGURE)?|MEAS(?:URE)?):([A-Z:]+?)(\?)?(?: .*)?$/.exec(command) ?? [];
    const mode = MODES[function_.replace('RESISTANCE', 'RES').replace('VOLTAGE', 'VOLT').replace('CURRENT', 'CURR')];
    if (!mode || (verb.startsWith('MEAS') && asks === '')) {
      this.errors.push(UNDEFINED_HEADER);
      if (this.errors.length > MOST_ERRORS) this.errors.shift();
      return null;
    }
    this.meter.mode = mode;
    return verb.startsWith('MEAS') ? this.value(t_s) : null;
  }

  private value(t_s: number): string {
    const { value } = this.meter.show(t_s);
    if (value === null) return '+9.90000000E+37';
    const [digits = '0', exponent = '0'] = value.toExponential(8).split('e');
    const power = Number(exponent);
    return `${value < 0 ? '' : '+'}${digits}E${power < 0 ? '-' : '+'}${String(Math.abs(power)).padStart(2, '0')}`;
  }
}
