import { entryForReader } from '../../core/limits/entry-for-reader';
import { inReaderUnit, readerUnit } from '../../core/quantity/reader-unit';
import { entryShown, significant } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { memo } from 'react';
import { sameContent } from '../../core/foundation/content';
import { limitsAt } from '../../core/limits/at';
import type { JudgedReading, Limits, Position } from '../../core/judge/types';
import { correctedWords, positionWords, verdictWord } from '../../core/judge/words';
import { Mark } from './mark';
import { placeMark } from '../../application/posts/place';
import { RowBox } from './row-box';
import type { Scale } from '../../application/posts/scale';
import { TONE } from '../../application/posts/shapes';

export interface PostRowProps {
  readonly title: string;
  readonly note?: string;
  readonly positions: readonly Position[];
  readonly readings: ReadonlyMap<Position, JudgedReading>;
  readonly limits: Limits;
  readonly scale: Scale;
  readonly active: Position | null;
  /** Absent on paper: the posts are then no buttons. */
  readonly onPick?: (position: Position) => void;
  /** "saved", "queued" … of a position, for people who cannot see the dot. */
  readonly saved?: (position: Position) => string | null;
}

const percent = (h: number): string => `${100 * h}%`;

/**
 * A row of posts with the channel running across all of them, so that one out of line is seen from across the
 * yard.
 */
export function PostRow(props: PostRowProps) {
  const { title, note, positions, readings, limits, scale, active, saved, onPick } = props;
  return (
    <section className="flex min-h-fit flex-1 flex-col" aria-label={title}>
      <div className="flex justify-between gap-3 pl-12 text-sm font-semibold text-soft">
        <h2 className="shrink-0">{title}</h2>
        <p className="truncate">{note}</p>
      </div>
      <RowBox
        posts={positions.length}
        scale={
          <div className="relative my-3 w-12 shrink-0" aria-hidden="true">
            {scale.ticks.map((t) => (
              <span
                key={t.label}
                className="absolute right-2 translate-y-1/2 font-mono text-xs text-soft"
                style={{ bottom: percent(t.height) }}
              >
                {t.label}
              </span>
            ))}
          </div>
        }
      >
        <Channel scale={scale} limits={limits} bare={differsByPost(limits)} />
        {positions.map((p) => (
          <Post
            key={p}
            position={p}
            reading={readings.get(p)}
            limits={limits}
            scale={scale}
            isActive={active === p}
            state={saved?.(p) ?? null}
            onPick={onPick}
          />
        ))}
      </RowBox>
    </section>
  );
}

/** The channel is not the same at every post: each has its own then. */
const differsByPost = (limits: Limits): boolean => limits.byPosition !== undefined || limits.transfer !== undefined;

/** Of one post: from its position, or from what its gauge showed. */
function OwnChannel({
  position,
  reading,
  limits,
  scale,
}: {
  position: Position;
  reading: JudgedReading | undefined;
  limits: Limits;
  scale: Scale;
}) {
  const own = limits.transfer ? reading?.limits : limitsAt(limits, position);
  if (!own || (own.lower == null && own.upper == null)) return null;
  const [low, high] = [
    own.lower == null ? 0 : scale.height(own.lower),
    own.upper == null ? 1 : scale.height(own.upper),
  ];
  return (
    <div className="pointer-events-none absolute inset-x-1 inset-y-3" aria-hidden="true">
      <div
        className="absolute inset-x-0 border-edge bg-channel"
        style={{
          bottom: percent(low),
          height: `max(6px, ${percent(high - low)})`,
          borderTopWidth: own.upper == null ? 0 : 2,
          borderBottomWidth: own.lower == null ? 0 : 2,
          borderBottomStyle: 'dashed',
        }}
      />
    </div>
  );
}

const Channel = memo(function Channel({
  scale,
  limits,
  bare,
}: Pick<PostRowProps, 'scale' | 'limits'> & { bare: boolean }) {
  if (limits.quantity === 'observation') return null;
  const low = limits.lower === undefined ? 0 : scale.height(limits.lower);
  const high = limits.upper === undefined ? 1 : scale.height(limits.upper);
  return (
    <div className="absolute inset-x-0 inset-y-3" aria-hidden="true">
      {scale.ticks.map((t) => (
        <div
          key={t.label}
          className="absolute inset-x-0 h-px bg-line opacity-60"
          style={{ bottom: percent(t.height) }}
        />
      ))}
      {!bare && (
        <div
          className="absolute inset-x-0 border-edge bg-channel"
          style={{
            bottom: percent(low),
            height: percent(high - low),
            borderTopWidth: limits.upper === undefined ? 0 : 2,
            borderBottomWidth: limits.lower === undefined ? 0 : 2,
            borderBottomStyle: 'dashed',
          }}
        />
      )}
    </div>
  );
});

interface PostProps {
  readonly position: Position;
  readonly reading: JudgedReading | undefined;
  readonly limits: Limits;
  readonly scale: Scale;
  readonly isActive: boolean;
  readonly state: string | null;
  readonly onPick: ((position: Position) => void) | undefined;
}

const Post = memo(function Post({ position, reading: r, limits, scale, isActive, state, onPick }: PostProps) {
  // Placed over its box: what it says is laid out without the posts beside it.
  const content = (
    <span aria-hidden={onPick ? true : undefined} className="absolute inset-0 flex py-3 text-left">
      {differsByPost(limits) && <OwnChannel position={position} reading={r} limits={limits} scale={scale} />}
      <PostBody reading={r} scale={scale} />
      <PostText position={position} reading={r} limits={limits} active={isActive} state={state} />
    </span>
  );
  const frame = `post relative min-w-0 flex-1 rounded-xl ${isActive ? 'ring-3 ring-estuary ring-inset' : ''}`;
  if (!onPick) return <div className={frame}>{content}</div>;
  return (
    <button
      type="button"
      className={frame}
      aria-current={isActive ? 'step' : undefined}
      data-position={position}
      onClick={() => onPick(position)}
    >
      <span className="sr-only">{postName(position, r, limits, state)}</span>
      {content}
    </button>
  );
}, isSamePost);

/**
 * Drawn again only when something about this post has changed: a reading must cost no more than its own post,
 * and judging a set makes all of its readings anew.
 */
function isSamePost({ reading: before, ...others }: PostProps, { reading: now, ...next }: PostProps): boolean {
  const keys = Object.keys(others) as (keyof typeof others)[];
  return keys.every((k) => others[k] === next[k]) && sameContent(before, now);
}

/** "cylinder 3, 201 ohm, too high, limit 1.0" */
export function postName(
  position: Position,
  r: JudgedReading | undefined,
  limits: Limits,
  state: string | null,
): string {
  const measured = r && r.verdict !== 'not-measured';
  const own = r?.limits ?? limitsAt(limits, position);
  const limit =
    r?.verdict === 'high' && own.upper != null
      ? tr`, limit ${limitShown(own.upper, limits)}`
      : r?.verdict === 'low' && own.lower != null
        ? tr`, limit ${limitShown(own.lower, limits)}`
        : '';
  const words = measured ? tr`${entrySaid(r, limits)}, ${verdictWord(r.verdict, limits)}${limit}` : 'not measured';
  return tr`${positionWords(position)}, ${words}${state ? tr`, ${state}` : ''}`;
}

/** What was typed, with its unit; an overload says what it means. */
function entrySaid(r: JudgedReading, limits: Limits): string {
  if (r.verdict === 'open' && r.corrected === null) return tr`OL (open)`;
  const { value, unit } = entryForReader(r.entry, limits);
  // "ohm" is said as a word; its sign is not said by every screen reader.
  const said = readerUnit(limits.unit).isOther ? unit : unit && limits.unit;
  return said ? `${value} ${said}` : value;
}

const limitShown = (limit: number, limits: Limits): string => {
  const unit = readerUnit(limits.unit);
  return unit.isOther ? `${inReaderUnit(limit, 0, unit)} ${unit.symbol}` : significant(limit, 4);
};

function PostBody({ reading: r, scale }: { reading: JudgedReading | undefined; scale: Scale }) {
  const placed = r ? placeMark(r, scale) : { height: 0.2, band: null };
  const tone = `var(--${TONE[r?.severity ?? 'none']})`;
  const measured = r !== undefined && r.verdict !== 'not-measured';
  const broken = r?.verdict === 'open';
  return (
    <div className="relative w-[30%] min-w-7 max-w-14 shrink-0">
      <div
        className="absolute left-1/2 -ml-1 w-2 rounded-t bg-post"
        style={{ top: broken ? '11%' : 0, bottom: 0, opacity: measured ? 1 : 0.35 }}
      />
      <div
        className="absolute bottom-0 left-1/2 -ml-4 h-1 w-8 rounded bg-post"
        style={{ opacity: measured ? 1 : 0.35 }}
      />
      {placed.band && measured && (
        <div
          className="absolute left-1/2 w-[calc(2.5rem*var(--mark,1))] -translate-x-1/2 opacity-30"
          style={{
            bottom: percent(placed.band.from),
            height: percent(placed.band.to - placed.band.from),
            background: tone,
          }}
        />
      )}
      <div
        className="absolute left-1/2 flex h-0 w-0 items-center justify-center"
        style={{ bottom: percent(placed.height), scale: 'var(--mark, 1)' }}
      >
        <Mark verdict={r?.verdict ?? 'not-measured'} severity={r?.severity ?? 'none'} />
      </div>
    </div>
  );
}

interface TextProps {
  position: Position;
  reading: JudgedReading | undefined;
  limits: Limits;
  active: boolean;
  state: string | null;
}

function PostText({ position, reading: r, limits, active, state }: TextProps) {
  const measured = r !== undefined && r.verdict !== 'not-measured';
  const [entry, at] = measured ? entryParts(r.entry, limits) : ['–'];
  // A clamp is read in volts: what it comes to is said below.
  const ownUnit = measured && limits.quantity === 'current' && /v\s*$/i.test(r.entry);
  const tone = !measured ? 'var(--estuary)' : r.severity === 'none' ? 'var(--soft)' : `var(--${TONE[r.severity]})`;
  const word = measured
    ? verdictWord(r.verdict, limits)
    : active
      ? limits.quantity === 'observation'
        ? 'look here'
        : 'probe here'
      : '';
  return (
    // Above the channel of its post, which may reach over all of it.
    <div className="relative min-w-0 flex-1 pl-1 leading-tight">
      <div className={`flex items-center gap-1.5 font-bold ${typeof position === 'number' ? 'text-xl' : 'text-sm'}`}>
        {position}
        <Saved state={state} />
      </div>
      <div className="mt-1 font-mono leading-none font-medium whitespace-nowrap" style={{ fontSize: entrySize(entry) }}>
        {entry}
      </div>
      <div className="post-detail text-sm text-soft">
        {measured
          ? r.corrected === null && r.verdict === 'open'
            ? '(open)'
            : (at ?? (ownUnit ? '\u00a0' : readerUnit(limits.unit).symbol))
          : '\u00a0'}
      </div>
      <div className="mt-1 leading-tight font-bold" style={{ color: tone, fontSize: WORD_SIZE }}>
        {word}
      </div>
      {measured && r.verdict !== 'unsteady' && (
        <div className="post-detail font-mono text-xs whitespace-nowrap text-soft">
          {correctedWords(r, limits)}
          {ownUnit && ` ${readerUnit(limits.unit).symbol}`}
        </div>
      )}
    </div>
  );
}

/** What was typed, and what stands behind its at sign; of an observation pass or fail, and the note. */
function entryParts(entry: string, limits: Limits): [string, string?] {
  if (limits.quantity === 'observation') {
    const [word = '', ...note] = entry.trim().split(/[\s:,]+/);
    return [/^(p|ok|good)/i.test(word) ? 'pass' : 'fail', note.join(' ')];
  }
  const [value = entry, at] = entry.split('@').map((s) => s.trim());
  const own = entryForReader(value, limits);
  if (!at) return [own.value];
  return [
    own.value,
    (limits.pair === undefined
      ? tr`${own.unit} at ${entryShown(at)}`
      : `${own.unit}; ${limits.pair} ${entryShown(at)}`
    ).trim(),
  ];
}

/**
 * 30 px where it fits beside the post, less where the entry is long or the post narrow. A sign of the face is
 * 0.65 em wide.
 */
const entrySize = (entry: string): string =>
  `min(30px, calc((var(--post-width) - clamp(28px, var(--post-width) * 0.3, 56px) - 8px) / ${(Math.max(3, entry.length) * 0.65).toFixed(2)}))`;

const WORD_SIZE = 'min(16px, calc(var(--post-width) * 0.15))';

/**
 * It is seen when it waits, not for the blink that a server needs; and its place is kept, so that nothing
 * moves.
 */
function Saved({ state }: { state: string | null }) {
  if (state === null) return null;
  const look =
    state === 'refused'
      ? 'bg-rust'
      : state === 'saved' || state === 'keeping'
        ? 'invisible'
        : 'animate-pulse bg-ochre transition-[visibility] delay-500 starting:invisible';
  return <span title={state} className={`inline-block size-2.5 rounded-full ${look}`} />;
}
