import { moment } from '../../core/signal/words';
import type { TraceView } from '../views';
import { pictureHeight, recordingLines, shownFinding, strokesOf, type TracePicture, windowAround } from './picture';

const dropout = (channel: string, at_s: number) =>
  ({
    kind: 'dropout',
    channel,
    from_s: at_s,
    to_s: at_s + 0.04,
    severity: 'fail',
    confidence: 0.9,
    depth: 2,
    samples: 4,
    course: 2,
    level: 0,
    together: [],
    reasons: ['It fell to nothing.'],
  }) as const;
const note = (kind: 'evidence' | 'dismissed' | 'mark', of: { channel: string; from_s: number; to_s: number }) => ({
  id: `${kind} ${of.from_s}`,
  by: 'Runa',
  at: '2026-01-01T00:00:00Z',
  body: { kind, channel: of.channel, from_s: of.from_s, to_s: of.to_s, text: 'a word why' },
});
const [early, late] = [dropout('a', 10), dropout('b', 20)];
const view = (notes: TraceView['notes'], findings = [early, late]): TraceView => ({
  id: 'x',
  jobId: 'y',
  name: 'road',
  by: 'Runa',
  at: '2026-01-01T00:00:00Z',
  missing: [],
  notes,
  head: {
    kind: 'csv',
    file: 'road.csv',
    size: 1,
    sha256: 'ab',
    began_s: null,
    notes: [],
    streams: [],
    clocks: [],
    channels: ['a', 'b'].map((column) => ({
      column,
      name: `pin ${column}`,
      unit: 'V',
      role: 'sensor',
      factor: 1,
      stream: 0,
      clock: 0,
      lead: 'red',
    })),
    search: {
      core: '1',
      findings,
      searched: [
        {
          channel: 'a',
          samples: 10,
          seconds: 60,
          found: 1,
          noise: 0.01,
          wouldFind: { samples: 1, depth: 0.25, probability: 0.99 },
          why: null,
        },
        { channel: 'b', samples: 10, seconds: 60, found: 1, noise: 0.01, wouldFind: null, why: 'It switches.' },
      ],
      summary: '',
    },
  },
});

it('shows what was taken as evidence before what was only found, and never what was dismissed', () => {
  expect(shownFinding(view([]))).toBe(early);
  expect(shownFinding(view([note('evidence', late)]))).toBe(late);
  expect(shownFinding(view([note('dismissed', early)]))).toBe(late);
  expect(shownFinding(view([note('dismissed', early), note('dismissed', late)]))).toBeNull();
  expect(shownFinding(view([], []))).toBeNull();
  expect(windowAround(early).from_s).toBeLessThan(early.from_s);
});

it('tells the file what was found, who decided what, and what would have been found', () => {
  const lines = recordingLines(view([note('evidence', early), note('dismissed', late), note('mark', late)])).join('\n');
  expect(lines).toContain(`pin a at ${moment(10)}: It fell to nothing. (taken as evidence by Runa)`);
  expect(lines).toContain('(dismissed by Runa: a word why)');
  expect(lines).toContain('a dropout of one sample and 0.25 V would have been found with 99 %');
  expect(lines).toContain('pin b could not be searched: It switches.');
  expect(lines).toContain('Leads: pin a: red; pin b: red.');
  expect(lines).toContain('Mark at');
  expect(recordingLines(view([], [])).join('\n')).toContain('Nothing left its course.');
});

it('draws within its frame, breaks the line where nothing was recorded, and shows limits and the finding', () => {
  const points = Array.from({ length: 50 }, (_, i) => [i / 10, i === 20 ? NaN : i === 30 ? 0 : 3] as const);
  const picture: TracePicture = {
    from_s: 0,
    to_s: 5,
    marked: { from_s: 3, to_s: 3.1 },
    lanes: [{ name: 'a', unit: 'V', points, lower: 0.5, upper: 4, isMeant: true }],
    caption: 'c',
  };
  const strokes = strokesOf(picture, 400);
  const lines = strokes.flatMap((s) => (s.kind === 'line' ? [s.points] : []));
  expect(lines).toHaveLength(2);
  for (const [x, y] of lines.flat()) {
    expect(x).toBeGreaterThanOrEqual(0);
    expect(x).toBeLessThanOrEqual(400);
    expect(y).toBeGreaterThanOrEqual(0);
    expect(y).toBeLessThanOrEqual(pictureHeight(picture));
  }
  const areas = strokes.flatMap((s) => (s.kind === 'area' ? [s.role] : []));
  expect(areas).toEqual(['lane', 'limits', 'marked']);
});
