import type { Said } from '../../core/locale/said';
import type { FromSchema } from 'json-schema-to-ts';
import type { LeadMap } from '../../core/signal/lead-map';
import type { Transfer } from '../../core/limits/transfer';
import type { Cycle } from '../../core/signal/angle/cycle';
import type { DriveEvent } from '../../core/signal/drive';
import { ROLES, type ChannelRole, type Finding, type Searched } from '../../core/signal/types';
import { type BodyOf, by, line, note, uuid } from './common';

/** The most that one recording may hold. */
export const MOST_CHANNELS = 32;
/** Files of one drive that are laid on one clock. */
export const MOST_FILES = 6;
export const SHIFT_WAYS = ['first', 'time stamps', 'common movement', 'by hand'] as const;
const MOST_BLOCKS = 2000;
const MOST_RUNS = 2500;
const MOST_FINDINGS = 1000;

const number = { type: 'number', minimum: -1e15, maximum: 1e15 } as const;
const index = { type: 'integer', minimum: 0, maximum: 2 * MOST_CHANNELS } as const;
const sha256 = { type: 'string', pattern: '^[0-9a-f]{64}$' } as const;
const count = { type: 'integer', minimum: 1, maximum: 80_000_000 } as const;
const name = { type: 'string', minLength: 1, maxLength: 120, pattern: '\\S' } as const;

/** Samples of one kind, in blocks; a hash for each. */
const STREAM = {
  type: 'object',
  additionalProperties: false,
  required: ['count', 'decimals', 'wide', 'scale', 'blocks'],
  properties: {
    count,
    decimals: { type: 'integer', minimum: 0, maximum: 15 },
    wide: { type: 'boolean' },
    scale: number,
    blocks: { type: 'array', minItems: 1, maxItems: MOST_BLOCKS, items: sha256 },
  },
} as const;

const CLOCK = {
  anyOf: [
    {
      type: 'object',
      additionalProperties: false,
      required: ['runs', 'count'],
      properties: {
        count,
        runs: {
          type: 'array',
          minItems: 1,
          maxItems: MOST_RUNS,
          items: {
            type: 'object',
            additionalProperties: false,
            required: ['first', 'start_s', 'period_s'],
            properties: {
              first: { type: 'integer', minimum: 0 },
              start_s: number,
              period_s: { type: 'number', exclusiveMinimum: 0, maximum: 1e9 },
            },
          },
        },
      },
    },
    {
      type: 'object',
      additionalProperties: false,
      required: ['stream'],
      properties: { stream: index },
      description: 'Seconds of every sample.',
    },
  ],
} as const;

const CHANNEL = {
  type: 'object',
  additionalProperties: false,
  required: ['column', 'name', 'unit', 'role', 'factor', 'stream', 'clock'],
  properties: {
    column: name,
    name,
    unit: { type: 'string', minLength: 1, maxLength: 20 },
    role: { enum: ROLES },
    factor: { ...number, description: 'Units per unit of the file.' },
    stream: index,
    clock: index,
    of: name,
    lead: { type: 'string', maxLength: 120, description: 'Which lead went to which pin.' },
    cylinder: { type: 'integer', minimum: 1, maximum: 24, description: 'Of an injector’s own current.' },
    judgedBy: {
      type: 'object',
      additionalProperties: false,
      required: ['test', 'source'],
      description: 'Limits and transfer function as the shelf had them, in the unit of the channel.',
      properties: {
        test: name,
        source: { type: 'string', maxLength: 400 },
        lower: number,
        upper: number,
        transfer: { $ref: 'urn:mudflat:limits:1#/properties/transfer' },
      },
    },
  },
} as const;

export const CONDITIONS_OF_CAPTURE = ['cranking', 'idle', 'load'] as const;
export const WARMTHS = ['cold', 'hot'] as const;
const list = { type: 'array', maxItems: 240, items: number } as const;
const cylinder = { anyOf: [{ type: 'integer', minimum: 1, maximum: 24 }, { type: 'null' }] } as const;
/** A capture over crank angle, as it was when it was taken in. */
const CAPTURE = {
  type: 'object',
  additionalProperties: false,
  required: ['condition', 'conclusions', 'cycle'],
  properties: {
    condition: { enum: CONDITIONS_OF_CAPTURE },
    temperature: { enum: WARMTHS },
    conclusions: { type: 'array', maxItems: 40, items: { type: 'string', maxLength: 1000 } },
    cycle: {
      anyOf: [
        { type: 'null' },
        {
          type: 'object',
          additionalProperties: false,
          required: ['from', 'cycles', 'speed_rpm', 'isNamed', 'places', 'lanes', 'cam', 'teeth'],
          properties: {
            from: { enum: ['crank', 'cylinder'] },
            cycles: { type: 'integer', minimum: 1, maximum: 1000 },
            speed_rpm: number,
            isNamed: { type: 'boolean' },
            teeth: { anyOf: [{ type: 'integer', minimum: 1, maximum: 720 }, { type: 'null' }] },
            places: {
              type: 'array',
              maxItems: 24,
              items: {
                type: 'object',
                additionalProperties: false,
                required: ['cylinder', 'angle_deg'],
                properties: { cylinder, angle_deg: number },
              },
            },
            lanes: {
              type: 'array',
              maxItems: MOST_CHANNELS,
              items: {
                type: 'object',
                additionalProperties: false,
                required: ['column', 'middle', 'low', 'high'],
                properties: { column: name, middle: list, low: list, high: list },
              },
            },
            cam: {
              type: 'array',
              maxItems: 200,
              items: {
                type: 'object',
                additionalProperties: false,
                required: ['angle_deg', 'deviation_deg', 'edge', 'seen'],
                properties: {
                  angle_deg: number,
                  deviation_deg: number,
                  edge: { enum: ['rising', 'falling'] },
                  seen: { type: 'integer', minimum: 0, maximum: 100_000 },
                },
              },
            },
          },
        },
      ],
    },
  },
} as const;

export const TRACE_HEAD = {
  type: 'object',
  additionalProperties: false,
  required: ['kind', 'file', 'size', 'sha256', 'began_s', 'notes', 'streams', 'clocks', 'channels', 'search'],
  properties: {
    kind: { enum: ['csv', 'wav', 'can'] },
    file: { type: 'string', minLength: 1, maxLength: 200 },
    size: { type: 'integer', minimum: 1, maximum: 2e9 },
    sha256,
    began_s: { anyOf: [number, { type: 'null' }] },
    notes: { type: 'array', maxItems: 20, items: { type: 'string', maxLength: 400 } },
    streams: { type: 'array', minItems: 1, maxItems: 2 * MOST_CHANNELS, items: STREAM },
    clocks: { type: 'array', minItems: 1, maxItems: MOST_CHANNELS, items: CLOCK },
    channels: { type: 'array', minItems: 1, maxItems: MOST_CHANNELS, items: CHANNEL },
    capture: CAPTURE,
    files: {
      type: 'array',
      minItems: 2,
      maxItems: MOST_FILES,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['name', 'size', 'sha256', 'shift_s', 'how'],
        properties: {
          name: { type: 'string', minLength: 1, maxLength: 200 },
          size: { type: 'integer', minimum: 1, maximum: 2e9 },
          sha256,
          shift_s: number,
          how: { enum: SHIFT_WAYS },
        },
      },
    },
    search: {
      type: 'object',
      additionalProperties: false,
      required: ['core', 'findings', 'searched', 'summary'],
      properties: {
        core: { type: 'string', maxLength: 40 },
        findings: {
          type: 'array',
          maxItems: MOST_FINDINGS,
          items: { $ref: 'urn:mudflat:trace-findings:1#/$defs/finding' },
        },
        searched: {
          type: 'array',
          maxItems: MOST_CHANNELS,
          items: { $ref: 'urn:mudflat:trace-findings:1#/$defs/searched' },
        },
        summary: { type: 'string', maxLength: 20_000 },
        said: {
          type: 'object',
          maxProperties: 10_000,
          additionalProperties: {
            type: 'array',
            minItems: 1,
            maxItems: 20,
            items: { type: 'string', maxLength: 2_000 },
          },
        },
        events: {
          type: 'array',
          maxItems: MOST_FINDINGS,
          items: { $ref: 'urn:mudflat:trace-findings:1#/$defs/event' },
        },
      },
    },
  },
} as const;

export interface TraceStream {
  readonly count: number;
  readonly decimals: number;
  readonly wide: boolean;
  readonly scale: number;
  readonly blocks: readonly string[];
}
export type TraceClock =
  | { readonly runs: readonly { first: number; start_s: number; period_s: number }[]; readonly count: number }
  | { readonly stream: number };
export interface TraceChannel {
  readonly column: string;
  readonly name: string;
  readonly unit: string;
  readonly role: ChannelRole;
  readonly factor: number;
  readonly stream: number;
  readonly clock: number;
  readonly of?: string;
  readonly lead?: string;
  readonly judgedBy?: JudgedBy;
  readonly cylinder?: number;
}
/** A capture over crank angle: its condition, one cycle of it, and what its findings say together. */
export interface TraceCapture {
  readonly condition: (typeof CONDITIONS_OF_CAPTURE)[number];
  /** Absent: nobody said. */
  readonly temperature?: (typeof WARMTHS)[number];
  readonly conclusions: readonly string[];
  readonly cycle: Cycle | null;
}
/** What the shelf said of a channel when it was taken in. */
export interface JudgedBy {
  /** The name of its test. */
  readonly test: string;
  readonly source: string;
  readonly lower?: number;
  readonly upper?: number;
  readonly transfer?: Transfer;
}
/** All of a recording but its samples. */
export interface TraceHead {
  readonly kind: 'csv' | 'wav' | 'can';
  readonly file: string;
  readonly size: number;
  readonly sha256: string;
  readonly began_s: number | null;
  readonly notes: readonly string[];
  readonly streams: readonly TraceStream[];
  readonly clocks: readonly TraceClock[];
  readonly channels: readonly TraceChannel[];
  /** What was found when it was taken in. */
  readonly search: {
    readonly core: string;
    readonly findings: readonly Finding[];
    readonly searched: readonly Searched[];
    readonly summary: string;
    /**
     * What the sentences are made of, for readers of another language; absent in recordings of an earlier
     * version.
     */
    readonly said?: Said;
    /** What the drive did; absent in recordings of an earlier version. */
    readonly events?: readonly DriveEvent[];
  };
  /**
   * Where it was put together from several files: each with what its clock was moved by, and how that was
   * found.
   */
  readonly files?: readonly TraceFile[];
  readonly capture?: TraceCapture;
}
export interface TraceFile {
  readonly name: string;
  readonly size: number;
  readonly sha256: string;
  readonly shift_s: number;
  readonly how: (typeof SHIFT_WAYS)[number];
}

export const KEEP_TRACE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'name', 'head'],
  properties: { id: uuid, by, name: line, head: TRACE_HEAD },
} as const;
export type KeepTrace = BodyOf<typeof KEEP_TRACE, { head: TraceHead }>;

export const STANDINGS = ['known good', 'unknown', 'bad'] as const;
export type Standing = (typeof STANDINGS)[number];

/** A mark by a person, or why a finding is no evidence. */
export const NOTE_TRACE = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'kind', 'from_s', 'to_s', 'channel', 'text'],
  properties: {
    id: uuid,
    by,
    kind: { enum: ['mark', 'dismissed', 'evidence', 'standing'] },
    from_s: number,
    to_s: number,
    channel: { anyOf: [name, { type: 'null' }] },
    text: { ...note, minLength: 1, pattern: '\\S' },
    /** Of a capture of which a lead says what it is good for. */
    standing: { enum: STANDINGS },
    /** Of the piece of evidence that came of it. */
    evidence: uuid,
  },
} as const;
export type NoteTrace = FromSchema<typeof NOTE_TRACE>;
/** What is kept of a note: all but who and which. */
export type TraceNoteBody = Omit<NoteTrace, 'id' | 'by'>;

/** Which lead of a recorder goes to which pin. The newest of a job counts. */
export const WRITE_LEADS = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'ground', 'leads'],
  properties: {
    id: uuid,
    by,
    ground: line,
    leads: {
      type: 'array',
      minItems: 1,
      maxItems: MOST_CHANNELS,
      items: {
        type: 'object',
        additionalProperties: false,
        required: ['lead', 'signal', 'role', 'connector', 'pin', 'colour'],
        properties: {
          lead: { ...name, maxLength: 40 },
          signal: name,
          role: { enum: ROLES },
          connector: { type: 'string', maxLength: 120 },
          pin: { type: 'string', maxLength: 20 },
          colour: { type: 'string', maxLength: 60 },
        },
      },
    },
  },
} as const;
export type WriteLeads = BodyOf<typeof WRITE_LEADS, LeadMap>;

/** What a lead says that a capture is good for. */
export const CAPTURE_STANDING = {
  type: 'object',
  additionalProperties: false,
  required: ['id', 'by', 'standing', 'why'],
  properties: { id: uuid, by, standing: { enum: STANDINGS }, why: { ...note, minLength: 1, pattern: '\\S' } },
} as const;
export type CaptureStanding = FromSchema<typeof CAPTURE_STANDING>;
