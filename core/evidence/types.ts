import type { TestDefinition } from '../catalogue/types';
import type { Judgement, MeasurementDoubt, Position } from '../judge/types';

/** When a complaint shows itself, or a drive was made. */
export const CONDITIONS = ['cold', 'hot', 'idle', 'load', 'towing', 'after a stop', 'wet', 'intermittent'] as const;
export type DriveCondition = (typeof CONDITIONS)[number];

/** Evidence that is no meter reading, as a technician states it. `photos` are ids of photos of the job. */
export type Evidence = { readonly note?: string | undefined; readonly photos?: readonly string[] | undefined } &
  /** A part was exchanged with that of another position, or with a twin, and the fault looked for again. */
  (
    | {
        readonly kind: 'swap';
        readonly part: string;
        /** Absent: with a twin, such as a relay with another one of its kind. */
        readonly from?: Position | undefined;
        readonly to?: Position | undefined;
        readonly outcome: 'followed' | 'stayed' | 'gone';
        /** Whether the fault was there just before; absent: it was. */
        readonly wasThere?: boolean | undefined;
      }
    /** One cylinder was cut while the engine ran. */
    | {
        readonly kind: 'cut-out';
        readonly position: number;
        readonly faultPresent: boolean;
        readonly change: 'worse' | 'none';
      }
    /** The loom was moved while something was watched. */
    | {
        readonly kind: 'wiggle';
        readonly where: string;
        readonly position?: Position | undefined;
        readonly outcome: 'broke' | 'held';
      }
    | {
        readonly kind: 'visual';
        readonly where: string;
        readonly position?: Position | undefined;
        readonly damaged: boolean;
        readonly seen: string;
      }
    | {
        readonly kind: 'new-part';
        readonly part: string;
        readonly position?: Position | undefined;
        readonly outcome: 'cured' | 'no change' | 'other fault';
        readonly changed: string;
      }
    | {
        readonly kind: 'drive';
        readonly conditions: readonly DriveCondition[];
        readonly outcome: 'showed' | 'did not show';
        readonly seen: string;
      }
    /** What a recording at the pins has shown of one signal. */
    | {
        readonly kind: 'recording';
        readonly signal: string;
        readonly position?: Position | undefined;
        readonly outcome:
          | 'pin dropped out'
          | 'scan tool dropped out'
          | 'all dropped out'
          | 'pin differs'
          | 'pin agrees'
          | 'nothing found';
        readonly seen: string;
      }
    /** What a capture over crank angle has shown of the engine or of one cylinder. */
    | {
        readonly kind: 'capture';
        readonly position?: number | undefined;
        readonly outcome:
          | 'no pulse'
          | 'off the grid'
          | 'compresses little'
          | 'gives little'
          | 'knocks'
          | 'drags'
          | 'supply weak'
          | 'out of time'
          | 'signal noisy'
          | 'as it should be';
        readonly seen: string;
      }
    /** What a scan tool has shown, but for codes. */
    | {
        readonly kind: 'scan-tool';
        readonly what: string;
        readonly position?: number | undefined;
        readonly outcome: 'self-test failed' | 'self-test passed' | 'command on' | 'command off' | 'shown';
        readonly seen: string;
      }
    /** Good without a reading. */
    | {
        readonly kind: 'normal';
        readonly part: string;
        readonly position?: Position | undefined;
        readonly seen: string;
      }
    /** Of the engine itself, as it was felt, heard or seen. */
    | {
        readonly kind: 'mechanical';
        readonly where: string;
        readonly position?: Position | undefined;
        readonly outcome: 'broken' | 'doubtful' | 'good';
        readonly seen: string;
      }
    /** What was mended at a place: from then on older evidence about it is history. */
    | {
        readonly kind: 'repair';
        readonly where: string;
        readonly path: boolean;
        readonly part: string;
        readonly position?: Position | undefined;
        readonly done: string;
      }
  );
export type EvidenceKind = Evidence['kind'];

/** Something that a statement rests on. */
export interface Ref {
  readonly kind: 'run' | 'evidence';
  readonly id: string;
  /** "Glow plugs, at the plug: cylinder 3 201 Ω, too high" */
  readonly label: string;
}

/** What a statement is about. The part of one position and the wire to it are two things. */
export interface Target {
  readonly kind: 'part' | 'path' | 'shared' | 'input' | 'mechanics';
  /** "plug", "injector", "feed, relay and ground". */
  readonly name: string;
  /** `null`: not of one position. */
  readonly position: Position | null;
}

/** `bad` convicts, `suspect` accuses, `cleared` acquits. `noted` neither. */
export type Stand = 'bad' | 'suspect' | 'cleared' | 'noted';

export interface Statement {
  readonly rule: RuleId;
  readonly stand: Stand;
  readonly target: Target;
  /** What was seen, then what it means. */
  readonly text: string;
  readonly from: readonly Ref[];
}

export interface Contradiction {
  readonly target: Target;
  readonly text: string;
  readonly sides: readonly [Statement, Statement];
}

/** What a job knows: all that is said, and what does not go together. */
export interface Known {
  readonly statements: readonly Statement[];
  readonly contradictions: readonly Contradiction[];
  /** What must be settled about a measurement before it convicts anybody, of the newest run of each test. */
  readonly doubts: readonly KnownDoubt[];
  /** What convicted or accused something that was mended since. */
  readonly mended: readonly Statement[];
}

export interface KnownDoubt {
  readonly run: string;
  readonly test: string;
  readonly kind: MeasurementDoubt['kind'];
  /** In a sentence. */
  readonly say: string;
}

/** A test run as evidence: its test as it was, and its judgement. */
export interface MeasuredRun {
  readonly id: string;
  readonly definition: TestDefinition;
  readonly judgement: Judgement;
  /** ISO 8601, UTC. */
  readonly at: string;
}

/** Evidence as recorded. */
export interface RecordedEvidence {
  readonly id: string;
  readonly body: Evidence;
  readonly at: string;
}

export type RuleId =
  | 'bare-part'
  | 'in-circuit-minus-bare'
  | 'shared-proven'
  | 'all-fail'
  | 'group-shares'
  | 'meter-equals-scan'
  | 'bypass'
  | 'swap'
  | 'cut-out'
  | 'wiggle'
  | 'visual'
  | 'new-part'
  | 'drive'
  | 'recording'
  | 'capture'
  | 'scan-tool'
  | 'normal'
  | 'mechanical'
  | 'measured'
  | 'repaired';

/** Why a rule holds. All of them common practice, no source. */
export const RULES: Readonly<Record<RuleId, string>> = {
  'bare-part':
    'A part that is measured by itself, unplugged, answers for itself alone: no wire and no controller is in the reading.',
  'in-circuit-minus-bare':
    'What the part reads by itself and what it reads through its wire differ by the wire and its connectors.',
  'shared-proven': 'What works proves all that it needs: the others share feed and ground with the odd one.',
  'all-fail':
    'When every position fails at once, one fault in what they share is likelier than as many faults as positions.',
  'group-shares': 'When all and only the members of a group fail, look at what only they share.',
  'meter-equals-scan':
    'The meter at the pin and the scan tool see the same signal: wire and controller input are good. Where they differ, the controller sees something else than the sensor sends.',
  bypass:
    'A jumper in place of the sensor: if the controller sees it, wires, pins and input are good and the sensor is what is left.',
  swap: 'A fault that follows the part is in the part; one that stays is in the wire, the controller or the mechanics of the position.',
  'cut-out': 'A cylinder that works is missed when it is cut; one that does no work makes no difference.',
  wiggle:
    'A connection that breaks when it is moved is broken, however good it reads at rest. One that holds today may break tomorrow.',
  visual: 'Damage that is seen needs no meter; a place that looks good is not proven.',
  'new-part':
    'A new part that changes nothing clears the old one, unless the new one is bad too. One that cures it points at the old one or its connector.',
  drive: 'A fault that does not show in a drive has not been looked for in the right conditions.',
  recording:
    'A pin shows what the sensor sends, the scan tool what the controller believes: what breaks off at the pin lies before it, what breaks off behind it in the wire’s end or the controller. What all channels lose at once they share, or the recorder’s leads slipped.',
  'scan-tool': 'A controller tests what it sees at its own pin: part, wire and driver together, at that moment.',
  capture:
    'A capture over crank angle compares the cylinders of one engine with each other, or the engine with a known good: what all share is taken out of it.',
  normal: 'What somebody has seen to be good is good, as far as eyes tell.',
  mechanical: 'What the engine itself shows is no matter of wires: mechanics first, before a part is bought.',
  measured: 'A reading out of its limits, in the circuit: the part, its wire or what feeds it.',
  repaired: 'What was seen before a repair says nothing of what is there after it.',
};
