import { tr } from '../locale/translate';
import { capital } from '../foundation/text';
import { findTest } from '../catalogue/catalogue';
import { floatAt } from '../numerics/cell';
import type { Position } from '../judge/types';
import { positionWords } from '../judge/words';
import { joinAnd } from '../quantity/print';
import { costOf, type Setting } from './cost';
import { spreadShown } from './likelihood';
import { calledOf, decisionOf } from './hypotheses';
import type { Member, NextTest } from './types';
import type { Weighing } from './weigh';

/**
 * Why nothing is decided yet although one explanation leads: a reading that fits nothing, a set that is not
 * read whole, a conviction that rests on a single reading, or an accused that was not read by itself. Each
 * names the readings that would settle it.
 */
export interface HeldBack {
  readonly why: string;
  /** The meter or its leads are doubted. */
  readonly isDoubted?: boolean;
  readonly next: readonly NextTest[];
}

/** As it stands in a sentence: "plug 3", "the battery". */
const inSentence = (m: Member): string => {
  const called = calledOf(m);
  return m.position !== null || called.startsWith('the ') ? called : tr`the ${called}`;
};

/** Without the reading that it rests on, a share below this convicts nobody. */
const RESTS = 0.45;
/** A reading that is more likely than this a slip is read again. */
const SLIPPED = 0.5;
/** Not much likelier than as a slip. */
const TAILS = 3;
/** Where no other test would tell more, a suspect above this is read again too. */
const LEFT = 0.5;
/** So many bad members of one set prove the meter: not each of them has to be read again. */
const PROVES_METER = 3;
/** A suspect of a set above this asks for the rest of the set. */
const ASKS = 0.2;
/** How much likelier a reading is with the suspect than without, in nats, to speak for it. */
const SPEAKS = 2;

interface Leading {
  readonly member: Member;
  readonly of: readonly number[];
  readonly share: number;
}

/** `nothingElse`: no other test of the circuit would tell more. */
export function heldBack(r: Weighing, setting: Setting, convictedFrom: number, nothingElse: boolean): HeldBack | null {
  const leading = leadingOf(r).filter((l) => l.share >= ASKS);
  const from = nothingElse ? LEFT : convictedFrom;
  return (
    doubted(r, setting) ??
    slipped(r, setting) ??
    unreadOfSet(r, leading, setting) ??
    restingOnOne(
      r,
      leading.filter((l) => l.share >= from),
      setting,
    ) ??
    unreadItself(
      r,
      leading.filter((l) => l.share >= convictedFrom),
      setting,
    )
  );
}

/** The bench doubts the meter or its leads: nothing is said of a part before that is settled. */
function doubted(r: Weighing, setting: Setting): HeldBack | null {
  const [first] = r.evidence.filter((e) => e.doubt !== undefined && e.instance !== null);
  const at = r.predictions.instances[first?.instance ?? -1];
  if (first?.doubt === undefined || !at) return null;
  return {
    why: first.doubt,
    isDoubted: true,
    next: [asked(r, at.test, at.position, setting, 'What was read here counts once that is settled')],
  };
}

/** A reading that fits nothing that is likely: it was a slip, or there is more than anybody thinks of. */
function slipped(r: Weighing, setting: Setting): HeldBack | null {
  for (const e of r.evidence) {
    if (e.instance === null || r.evidence.filter((o) => o.instance === e.instance).length > 1) continue;
    let share = 0;
    for (let h = 0; h < r.posterior.length; h++)
      // Far out in the tails is as good as a slip.
      if (floatAt(e.seen.likelihood, h) < TAILS * e.asSlip) share += floatAt(r.posterior, h);
    const at = r.predictions.instances[e.instance];
    if (share < SLIPPED || !at) continue;
    return {
      why: tr`${e.label} does not fit the rest: read it again, with the probes placed anew.`,
      next: [
        asked(
          r,
          at.test,
          at.position,
          setting,
          'This reading does not fit the rest: read it again, the black probe on another clean point',
        ),
      ],
    };
  }
  return null;
}

function leadingOf({ hypotheses, posterior }: Weighing): Leading[] {
  const all = new Map<string, { member: Member; of: number[]; share: number }>();
  for (const [h, x] of hypotheses.entries()) {
    const seen = new Set<string>();
    for (const m of x.members) {
      const key = decisionOf(m);
      if (seen.has(key)) continue;
      seen.add(key);
      const own = all.get(key) ?? { member: m, of: [], share: 0 };
      own.of.push(h);
      own.share += floatAt(posterior, h);
      all.set(key, own);
    }
  }
  return [...all.values()].sort((a, b) => b.share - a.share);
}

/** Positions of a test in whose set a leading suspect is, that nobody has read. */
function unreadOfSet(r: Weighing, leading: readonly Leading[], setting: Setting): HeldBack | null {
  const { instances } = r.predictions;
  for (const l of leading) {
    const { position } = l.member;
    const speaking = r.evidence.filter((e) => e.instance !== null && speaksFor(r, e.seen.log, l) > SPEAKS);
    const isOfSet = (i: number | null): boolean => typeof instances[i ?? -1]?.position === 'number';
    // What is shared is known by itself where it is read by itself.
    if (position === null && !speaking.every((e) => isOfSet(e.instance))) continue;
    for (const e of speaking.filter((x) =>
      position === null ? isOfSet(x.instance) : instances[x.instance ?? -1]?.position === position,
    )) {
      const test = instances[e.instance ?? -1]?.test ?? '';
      const read = new Set(r.evidence.map((x) => x.instance));
      const left = instances.flatMap((x, i) => (x.test === test && !read.has(i) ? [x.position] : []));
      if (left.length === 0) continue;
      const said = tr`${joinAnd(left.map(positionWords))} ${left.length > 1 ? 'are' : 'is'} not read yet`;
      return {
        why: tr`Nothing is decided of a set before all of it is read: ${said}.`,
        next: left.map((at) => asked(r, test, at, setting, tr`Reads the rest of the set: ${said}`)),
      };
    }
  }
  return null;
}

/** A conviction that falls when one reading is left out: that reading again, and the probes placed anew. */
function restingOnOne(r: Weighing, convicted: readonly Leading[], setting: Setting): HeldBack | null {
  for (const l of convicted) {
    const alike = convicted.filter((o) => o.member.name === l.member.name && o.member.is === l.member.is);
    if (l.member.position !== null && alike.length >= PROVES_METER) continue;
    const own = new Set(l.of);
    for (const e of r.evidence) {
      if (e.instance === null) continue;
      if (shareWithout(r, e.seen.log, own) >= RESTS) continue;
      const at = r.predictions.instances[e.instance];
      if (!at) continue;
      const rests = tr`Only this reading says that it is ${inSentence(l.member)}`;
      return {
        why: tr`That it is ${inSentence(l.member)} rests on one reading: read it again, with the probes placed anew.`,
        next: [
          asked(r, at.test, at.position, setting, tr`${rests}: read it again, the black probe on another clean point`),
        ],
      };
    }
  }
  return null;
}

/** Share of what is in `own` had this reading not been taken. */
function shareWithout({ posterior }: Weighing, log: Float64Array, own: ReadonlySet<number>): number {
  let [inside, all] = [0, 0];
  // Weights without the reading can be large: the largest is taken out first.
  let top = -Infinity;
  const logs = new Float64Array(posterior.length);
  for (let h = 0; h < posterior.length; h++) {
    const x = Math.log(Math.max(1e-300, floatAt(posterior, h))) - floatAt(log, h);
    logs[h] = x;
    top = Math.max(top, x);
  }
  for (let h = 0; h < posterior.length; h++) {
    const w = Math.exp(floatAt(logs, h) - top);
    all += w;
    if (own.has(h)) inside += w;
  }
  return inside / all;
}

/** Logarithm of how much likelier a reading is with the suspect than with the healthy circuit. */
function speaksFor({ posterior }: Weighing, log: Float64Array, { of }: Leading): number {
  let [best, share] = [0, -1];
  for (const h of of)
    if (floatAt(posterior, h) > share) {
      share = floatAt(posterior, h);
      best = floatAt(log, h) - floatAt(log, 0);
    }
  return best;
}

function asked(r: Weighing, test: string, position: Position, setting: Setting, why: string): NextTest {
  const { instances } = r.predictions;
  const { minutes } = costOf(findTest(test), instances.filter((x) => x.test === test).length, setting);
  return {
    test,
    position,
    expectedInformation_bits: 0,
    minutes,
    why: tr`${why}; about ${Math.max(1, Math.round(minutes))} min.`,
  };
}

/** A prediction so many spreads from that of the healthy circuit is seen. */
const SEEN = 3;
/** A point that shows few other things besides tells of the accused itself. */
const FEW_OTHERS = 1.5;

/** A conviction by inference alone: the accused read by itself, where no other fault shows or few do. */
function unreadItself(r: Weighing, convicted: readonly Leading[], setting: Setting): HeldBack | null {
  const { instances } = r.predictions;
  const read = new Set(r.evidence.map((e) => e.instance));
  for (const l of convicted) {
    const alike = convicted.filter((o) => o.member.name === l.member.name && o.member.is === l.member.is);
    if (alike.length >= PROVES_METER) continue;
    const direct = directPoints(r, l);
    if (direct.length === 0 || direct.some((i) => read.has(i))) continue;
    const [at] = direct
      .map((i) => ({ i, cost: costOf(findTest(instances[i]?.test ?? ''), 1, setting).cost }))
      .toSorted((a, b) => a.cost - b.cost || a.i - b.i)
      .map(({ i }) => instances[i]);
    if (!at) continue;
    const itself = tr`${inSentence(l.member)} is accused by what other points show and was not read by itself`;
    return {
      why: `${capital(itself)}.`,
      next: [asked(r, at.test, at.position, setting, tr`Reads ${inSentence(l.member)} by itself`)],
    };
  }
  return null;
}

/** Points at which what is accused shows, and as few other decisions as at any. */
function directPoints(r: Weighing, l: Leading): number[] {
  const { predictions: p } = r;
  const best = l.of.reduce((a, b) => (floatAt(r.posterior, b) > floatAt(r.posterior, a) ? b : a), l.of[0] ?? 0);
  const single = p.hypotheses.findIndex((h) => h.members.length === 1 && h.members[0] === memberOf(r, best, l));
  if (single < 0) return [];
  const shown = p.instances.flatMap((_, i) => (isSeen(r, single, i) ? [i] : []));
  const crowds = shown.map((i) => {
    const all = new Set<string>();
    for (const [h, x] of p.hypotheses.entries())
      if (x.members.length === 1 && x.members[0] && isSeen(r, h, i)) all.add(decisionOf(x.members[0]));
    return all.size;
  });
  const least = Math.min(...crowds);
  return shown.filter((_, k) => (crowds[k] ?? 0) <= FEW_OTHERS * least);
}

const memberOf = (r: Weighing, h: number, l: Leading): Member | undefined =>
  r.hypotheses[h]?.members.find((m) => decisionOf(m) === decisionOf(l.member));

function isSeen({ predictions: p }: Weighing, h: number, i: number): boolean {
  const n = p.instances.length;
  const [is, was] = [floatAt(p.mean, h * n + i), floatAt(p.mean, i)];
  if (is === was) return false;
  if (!Number.isFinite(is) || !Number.isFinite(was)) return true;
  return Math.abs(is - was) > SEEN * spreadShown(p, p.instances[i]?.mode ?? 'voltage', was, floatAt(p.sd, i));
}
