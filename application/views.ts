import type { Locale } from '../core/locale/locale';
import type { Finding } from '../core/signal/types';
import type {
  JudgedBy,
  Standing,
  TraceCapture,
  TraceChannel,
  TraceHead,
  TraceNoteBody,
} from '../formats/requests/traces';
import type { Connector } from '../core/engine/connector';
import type { Engine } from '../core/engine/layout';
import type { MeterLink } from '../core/instrument/link';
import type { TestDefinition } from '../core/catalogue/types';
import type { Evidence, Known } from '../core/evidence/types';
import type { FindingBody, ProposedFinding, RuledOut } from '../core/evidence/finding';
import type { WeighedCircuit } from '../core/diagnosis/case';
import type { OpenQuotation } from '../core/repair/quotation';
import type { JobProgress } from '../core/job/progress';
import type { Plan } from '../core/plan/types';
import type { Role } from '../core/foundation/vocabulary';
import type { DecisionRule } from '../core/metrology/conformity';
import type { Scope } from '../core/specifications/types';
import type { Phase } from '../core/codes/phases';
import type { Condition, Judgement, JudgedReading, Limits, Position } from '../core/judge/types';
import type { AccuracyRange } from '../core/metrology/instrument';
import type { FreezeFrame } from '../formats/requests/codes';
import type { Intake } from '../formats/requests/intake';
import type { ListPlan } from './list-plan';
import type { RepairView } from './repair-view';

/** What the server shows and the screens draw. Times are ISO 8601 in UTC. */

export interface FleetUnitView {
  readonly id: string;
  readonly fleetNumber: string;
  readonly kind: string;
  readonly depot: string;
  readonly timeZone: string;
  readonly family: string;
  readonly engine: Engine;
  /** Codes of the parts that are fitted, by kind of part. */
  readonly parts: Readonly<Record<string, string>>;
}

export interface RunBrief {
  readonly id: string;
  readonly test: string;
  /** Of the test, as it was then. */
  readonly name: string;
  readonly startedAt: string;
  readonly startedBy: string;
  readonly judgement: Judgement | null;
}

/** A test as it is offered: enough to choose it by. */
export interface TestBrief {
  readonly id: string;
  readonly name: string;
  readonly purpose: string;
  readonly area: string;
  readonly minutes: number;
  readonly people: number;
  /** What it is found by. */
  readonly words: string;
}

export interface CodeView {
  readonly id: string;
  /** `null`: somebody looked and there was none. */
  readonly code: string | null;
  readonly phase: Phase;
  readonly freezeFrame: FreezeFrame;
  readonly status: 'active' | 'stored' | 'intermittent' | 'unknown';
  readonly by: string;
  readonly at: string;
}

export interface EvidenceView {
  readonly id: string;
  readonly body: Evidence;
  readonly by: string;
  readonly at: string;
}

export interface FindingView {
  readonly id: string;
  readonly body: FindingBody;
  readonly by: string;
  readonly at: string;
}

/** A recording of a job without its samples. */
export interface TraceView {
  readonly id: string;
  readonly jobId: string;
  readonly name: string;
  readonly head: TraceHead;
  readonly by: string;
  readonly at: string;
  /** Blocks that have not arrived. */
  readonly missing: readonly { readonly stream: number; readonly number: number }[];
  readonly notes: readonly {
    readonly id: string;
    readonly body: TraceNoteBody;
    readonly by: string;
    readonly at: string;
  }[];
}

export interface PhotoView {
  readonly id: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly by: string;
  readonly at: string;
}

/** A photo of a meter's display, kept with its reading. */
export interface DisplayPhotoView {
  readonly id: string;
  readonly readingId: string;
  readonly name: string;
}

/** One step of a job's trail. */
export interface AuditEvent {
  readonly number: number;
  readonly kind: string;
  readonly rowId: string;
  readonly by: string;
  readonly at: string;
}

/** Whether a trail is intact; what is not is named. */
export interface Verified {
  readonly format: 'mudflat/trail';
  readonly version: 1;
  readonly job: number;
  readonly events: number;
  readonly intact: boolean;
  /**
   * The hash of its last event: written down elsewhere, it proves later that nothing before it was changed.
   */
  readonly head: string;
  readonly faults: readonly { readonly number: number; readonly what: string }[];
}

export interface NoteView {
  readonly id: string;
  readonly kind: 'sum' | 'limits' | 'override' | 'judged-again';
  readonly title: string;
  readonly lines: readonly string[];
  readonly by: string;
  readonly at: string;
}

export interface JobBrief {
  readonly id: string;
  readonly number: number;
  readonly complaint: string;
  readonly openedAt: string;
  readonly openedBy: string;
  readonly closed: boolean;
  readonly odometer_km: number | null;
  readonly hours: number | null;
  readonly runs: readonly RunBrief[];
}

/** An open job as the yard lists it: no more than is drawn there. */
export interface YardJob {
  readonly id: string;
  readonly number: number;
  readonly complaint: string;
  readonly progress: Pick<JobProgress, 'now' | 'say' | 'waits'>;
  /** Its newest test; of its judgement what the small posts show. */
  readonly latest: { readonly id: string; readonly name: string; readonly judgement: Judgement | null } | null;
}

/** A released job of a unit, to be found again. */
export interface ReleasedJob {
  readonly id: string;
  readonly number: number;
  readonly complaint: string;
}

export interface YardView {
  readonly search: string;
  /** How many units there are to the search; the list may show fewer. */
  readonly found: number;
  readonly units: readonly (FleetUnitView & {
    readonly jobs: readonly YardJob[];
    /** The newest first. */
    readonly released: readonly ReleasedJob[];
  })[];
  readonly depots: readonly { readonly id: string; readonly name: string }[];
  readonly families: readonly { readonly id: string; readonly code: string; readonly engine: Engine }[];
}

export interface JobView {
  readonly job: JobBrief;
  readonly unit: FleetUnitView;
  readonly earlier: readonly JobBrief[];
  readonly tests: readonly (TestBrief & {
    /** It is for what this unit does not have. */
    readonly isUnfit: boolean;
  })[];
  readonly notes: readonly NoteView[];
  readonly codes: readonly CodeView[];
  /** Tests of this job in which something was unplugged with the key on: they set codes of their own. */
  readonly unplugged: readonly string[];
  readonly intake: Intake;
  readonly photos: readonly PhotoView[];
  readonly evidence: readonly EvidenceView[];
  readonly findings: readonly FindingView[];
  /** Of earlier jobs of this unit: what was found, what was advised, what was not found. */
  readonly before: readonly BeforeView[];
  /** What this depot knows of codes that their makers defined. */
  readonly descriptions: Readonly<Record<string, string>>;
  readonly depotId: string;
  /** Name and address of the workshop, a line each; `null`: none was entered. */
  readonly letterhead: string | null;
  readonly known: Known;
  readonly proposals: readonly ProposedFinding[];
  readonly ruledOut: readonly RuledOut[];
  readonly plan: Plan;
  readonly auditTrail: readonly AuditEvent[];
  /** Of each circuit that something was measured in. */
  readonly circuits: readonly CircuitView[];
  readonly repair: RepairView;
  /** Where it stands, and what is next. */
  readonly progress: JobProgress;
}

export type CircuitView = WeighedCircuit;

/** An earlier job of the unit that says something to this one. */
export interface BeforeView {
  readonly id: string;
  readonly number: number;
  readonly openedAt: string;
  readonly complaint: string;
  readonly findings: readonly FindingBody[];
  /** The same complaint or code again. */
  readonly comeback: string | null;
  /** Quotations that were declined, deferred or never answered. */
  readonly quotations: readonly OpenQuotation[];
}

export interface InstrumentView {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly accuracy: readonly AccuracyRange[];
  readonly calibrationDue: string | null;
  readonly clamp_mVperA?: number | undefined;
  readonly leadRepeatability_ohm?: number | undefined;
  /** How it is read without typing; absent: it is typed. */
  readonly link?: MeterLink | undefined;
  /** Not in use any more: shown where it was used. */
  readonly retired: boolean;
}

export interface TestLeadView {
  readonly name: string;
  readonly zero: string;
  readonly measuredAt: string;
}

/** What a depot measures with. */
export interface DepotInstrumentsView {
  readonly id: string;
  readonly name: string;
  readonly timeZone: string;
  readonly instruments: readonly InstrumentView[];
  readonly testLeads: readonly TestLeadView[];
}

export interface SpecificationView {
  readonly id: string;
  readonly revision: number;
  readonly source: string;
  readonly status: 'draft' | 'approved' | 'rule-of-thumb' | 'withdrawn';
  readonly limits: Limits;
  readonly scope: Scope;
  /** Code of the part or the family, name of the depot; `null` for a general rule. */
  readonly of: string | null;
  readonly school: string | null;
}

export interface ReadingView {
  readonly id: string;
  readonly position: Position;
  readonly entry: string;
  readonly supersedes: string | null;
  readonly why: string | null;
  readonly takenAt: string;
  readonly takenBy: string;
  readonly instrumentId: string | null;
  readonly leadZero: string | null;
  /** As judged when it was stored. */
  readonly judged: JudgedReading;
  readonly coreVersion: string;
}

export interface CircumstanceView {
  readonly instrumentId: string | null;
  /** What the meter shows with its leads together, or a clamp away from any wire. */
  readonly leadZero: string | null;
  /** The newest zero of each instrument in this run, by id. */
  readonly zeros: Readonly<Record<string, string | null>>;
  readonly states: readonly string[];
  readonly condition: Condition;
}

export interface RunView {
  readonly id: string;
  readonly test: string;
  readonly startedAt: string;
  readonly startedBy: string;
  readonly unit: FleetUnitView;
  readonly job: JobBrief;
  /** The test as it was when the run began. */
  readonly definition: TestDefinition;
  readonly decision: DecisionRule;
  readonly specification: SpecificationView;
  /** Why these limits and not others. */
  readonly because: string;
  readonly circumstance: CircumstanceView;
  readonly instruments: readonly InstrumentView[];
  readonly testLeads: readonly TestLeadView[];
  /** All of them in the order in which they were stored, superseded ones too. */
  readonly readings: readonly ReadingView[];
  readonly judgement: Judgement;
  /** Of alternatives: the one that was read on this unit last; `null` where none was. */
  readonly fitted: string | null;
  /** Of this engine family, as the workshop's service information has them. */
  readonly connectors: readonly ConnectorView[];
  readonly displays: readonly DisplayPhotoView[];
}

export interface ConnectorView extends Connector {
  readonly key: string;
  readonly source: string;
}

/** What a recorded channel of a job can be judged by. */
export interface RecordingLimits {
  /** Id of the test whose limits these are. */
  readonly id: string;
  readonly unit: string;
  readonly judgedBy: JudgedBy;
}

/** A capture over crank angle, as the library has it. */
export interface LibraryCapture {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly family: string;
  readonly by: string;
  readonly at: string;
  readonly standing: Standing;
  readonly capture: TraceCapture;
  readonly channels: readonly Pick<TraceChannel, 'column' | 'role' | 'name' | 'unit'>[];
}
/** One that another capture is laid over, with its numbers. */
export interface CaptureBehind extends LibraryCapture {
  readonly findings: readonly Finding[];
}

/** What an empty installation asks for, each true once it is there. */
export interface FirstStepsView {
  readonly families: boolean;
  readonly units: boolean;
  readonly instruments: boolean;
  readonly limits: boolean;
  readonly people: boolean;
}

/** What belongs to a workshop, as its own screen lists it. */
export interface DepotLine {
  readonly id: string;
  readonly name: string;
  readonly timeZone: string;
  readonly currency: string | null;
  readonly retired: boolean;
  /** That stand there and are in use. */
  readonly units: number;
}
export interface FamilyLine {
  readonly id: string;
  readonly code: string;
  readonly engine: Engine;
  readonly retired: boolean;
  readonly units: number;
}
export interface UnitLine {
  readonly id: string;
  readonly fleetNumber: string;
  readonly kind: string;
  readonly depotId: string;
  readonly depot: string;
  readonly familyId: string;
  readonly family: string;
  readonly jobs: number;
  readonly retired: boolean;
}
export interface WorkshopView {
  readonly name: string;
  readonly hasLogo: boolean;
  /** How whoever has not chosen is addressed; `null`: nobody has said. */
  readonly locale: Locale | null;
  /** When the last backup was proven, ISO 8601; `null` for a demo. */
  readonly backup: { readonly last: string | null } | null;
  /**
   * Where a tablet learns how it takes the certificate, and that as a QR code (SVG); `null` where there is no
   * HTTPS.
   */
  readonly yard: { readonly address: string; readonly code: string } | null;
  readonly depots: readonly DepotLine[];
  readonly families: readonly FamilyLine[];
  readonly units: readonly UnitLine[];
}

export type UnitsPlan = ListPlan<{ readonly fleetNumber: string; readonly kind: string }>;
export type InstrumentsPlan = ListPlan<{ readonly depot: string; readonly name: string; readonly kind: string }>;
export type DepotsPlan = ListPlan<{ readonly name: string; readonly timeZone: string; readonly inUse: boolean }>;
/** `what`: one thing of a starter kit. */
export type KitPlan = ListPlan<{ readonly what: string }>;
/** `depot` null: every depot. */
export type PeoplePlan = ListPlan<{
  readonly name: string;
  readonly role: Role;
  readonly depot: string | null;
  readonly signsIn: boolean;
}>;

export interface PersonView {
  /** Devices on which the person is signed in now. */
  readonly sessions: number;
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  /** `null`: works for every depot. */
  readonly depot: string | null;
  readonly depotId: string | null;
  readonly retired: boolean;
}

/** Who is at this device. */
export interface SignedIn {
  /** At the bench; `null` while nobody is signed in. */
  readonly name: string | null;
  readonly role: Role | null;
  readonly depotId: string | null;
  /** All who are signed in on this device. */
  readonly onDevice: readonly string[];
  /** How whoever is at the bench is addressed. */
  readonly locale: Locale;
}
