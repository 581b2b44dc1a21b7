import { ENGINE_SIGNALS, type EngineFault, simulateEngine } from '../../core/simulate/engine/engine';
import { checkFindings } from '../../formats/trace-question';
import { answerTraceText } from './answer';

const ROLES = {
  crank: 'crank',
  cam: 'cam',
  starter: 'starter-current',
  battery: 'battery',
  injectors: 'injector-current',
  'injector 1': 'injector-current',
  knock: 'knock',
} as const;
const RATE = 12_000;
const ENGINE = { layout: 'inline', cylinders: 4, firingOrder: [1, 3, 4, 2] };

function question(
  condition: 'cranking' | 'idle',
  faults: readonly EngineFault[],
  ask: readonly string[],
  more: object = {},
  only: readonly string[] = ENGINE_SIGNALS,
  seed = 5,
) {
  const { channels } = simulateEngine({
    cylinders: 4,
    firingOrder: [1, 3, 4, 2],
    condition,
    seconds: 2.5,
    rate_Hz: RATE,
    wheel: { teeth: 36, missing: 1, kind: 'hall' },
    cam: [[30, 120]],
    faults,
    seed,
  });
  const own = ENGINE_SIGNALS.filter((s) => only.includes(s));
  return {
    format: 'mudflat/trace-question',
    version: 1,
    data: { columns: Object.fromEntries(own.map((s) => [s, Array.from(channels[s], (v) => Number(v.toFixed(3)))])) },
    time: { rate_Hz: RATE },
    channels: own.map((column) => ({
      column,
      role: ROLES[column],
      unit: ['starter', 'injectors', 'injector 1'].includes(column) ? 'A' : 'V',
      ...(column === 'injector 1' ? { cylinder: 1 } : {}),
    })),
    engine: ENGINE,
    ask,
    ...more,
  };
}
/** What the starter's work is told from. */
const CRANKED = ['crank', 'cam', 'starter', 'battery'];
const ask = (q: object) => answerTraceText(JSON.stringify(q), () => new Uint8Array());
function findings(q: object) {
  const answer = ask(q);
  if (!answer.ok) throw new Error(JSON.stringify(answer.error));
  expect(checkFindings(JSON.parse(JSON.stringify(answer.value)))).toBe(true);
  return answer.value;
}
const problems = (q: object): string[] => {
  const answer = ask(q);
  return answer.ok ? [] : answer.error.map((p) => `${p.path} ${p.message}`);
};

it('answers by its own schema: a low cylinder while cranking', () => {
  const low = findings(
    question('cranking', [{ kind: 'low compression', cylinder: 4, share: 0.5 }], ['relative-compression']),
  );
  const bad = low.findings.filter((f) => f.kind === 'compression' && f.severity === 'fail');
  expect(bad).toMatchObject([{ cylinder: 4 }]);
  expect(low.conclusions).toEqual([expect.stringContaining('Cylinder 4 compresses little.')]);
  expect(low.summary).toContain('Cylinder 4');
});

it('tells drag and a weak battery apart, and both from a cylinder', () => {
  const cranking = (faults: readonly EngineFault[]) =>
    findings(question('cranking', faults, ['relative-compression'], {}, CRANKED)).findings.find(
      (f) => f.kind === 'cranking',
    );
  expect(cranking([{ kind: 'drag' }])).toMatchObject({ even: true, severity: 'fail' });
  expect(cranking([{ kind: 'weak battery' }])?.reasons.join(' ')).toContain('look at battery and cables');
  expect(cranking([])).toMatchObject({ even: true, severity: 'none' });
});

it('finds cause and victims of a leaking injector, from contribution, pulses and knock of one capture', () => {
  const faults = [{ kind: 'leaking injector', cylinder: 3, victims: [2] }] as const;
  const { conclusions } = findings(question('idle', faults, ['contribution', 'firing', 'knock']));
  expect(conclusions[0]).toContain('The injector of cylinder 3 leaks; cylinder 2 is a victim.');
  expect(findings(question('idle', [], ['contribution', 'firing', 'knock'])).conclusions).toEqual([]);
});

it('compares with a known good that stands in the question or in a file beside it', () => {
  const only = ['crank', 'cam'];
  const good = question('cranking', [], ['timing'], {}, only, 8);
  const own = question('idle', [{ kind: 'timing', shift_deg: -10 }], ['timing'], {}, only);
  const shift = (reference: unknown, load = () => new TextEncoder().encode(JSON.stringify(good))) => {
    const answer = answerTraceText(JSON.stringify({ ...own, reference }), load);
    return answer.ok ? answer.value.findings.find((f) => f.kind === 'timing') : answer.error;
  };
  expect(shift(good)).toMatchObject({ inTime: false, severity: 'fail' });
  expect((shift(good) as { shift_deg: number }).shift_deg).toBeCloseTo(-10, 0);
  expect(shift('good.json')).toEqual(shift(good));
  expect(shift(null)).toBeUndefined();
  expect(shift('x.json', () => new TextEncoder().encode('{}'))).toContainEqual({
    path: '/reference/version',
    message: 'This field is missing.',
  });
  expect(
    shift('x.json', () => {
      throw new Error('no such file');
    }),
  ).toEqual([{ path: '/reference', message: 'x.json cannot be read: no such file' }]);
});

it.each([
  ['timing', ['cam'], '/ask/0 "timing" needs a channel of role crank.'],
  ['timing', ['crank'], '/ask/0 "timing" needs a channel of role cam.'],
  [
    'relative-compression',
    ['crank'],
    '/ask/0 "relative-compression" needs a channel of role starter-current, or of role battery for its dips.',
  ],
  [
    'firing',
    ['injector 1'],
    '/ask/0 "firing" needs a channel of role injector-current around the common supply, without a "cylinder".',
  ],
  [
    'contribution',
    ['injector 1'],
    '/ask/0 "contribution" needs a channel of role crank, or of a cam that has a toothed wheel: the speed comes from its teeth.',
  ],
  [
    'knock',
    ['knock'],
    '/ask/0 "knock" needs a channel of role injector-current with its "cylinder": without it no window has a cylinder.',
  ],
])('names what is missing: %s of %j', (what, only, message) => {
  expect(problems(question('idle', [], [what], {}, only))).toContain(message);
});

it('says what a channel does not carry, and refuses an engine that cannot be', () => {
  const flat = question('idle', [], ['timing'], {}, ['crank', 'cam']);
  const still = {
    ...flat,
    data: { columns: { crank: Array.from({ length: 9000 }, () => 2), cam: Array.from({ length: 9000 }, () => 0) } },
  };
  expect(problems(still)[0]).toContain('no wheel with a gap is seen in crank');
  expect(problems(question('idle', [], ['knock'], { time: { rate_Hz: 4000 } }))[0]).toContain(
    '4000 samples per second; knock needs 6000',
  );
  expect(problems({ ...flat, engine: { ...ENGINE, firingOrder: [1, 1, 2, 3] } })[0]).toContain('/engine/firingOrder');
  expect(problems({ ...flat, ask: ['firing'], engine: undefined })[0]).toContain('needs the "engine"');
  const named = question('idle', [], ['firing'], { engine: { ...ENGINE, cylinders: 3, firingOrder: [1, 3, 2] } });
  expect(
    problems({ ...named, channels: named.channels.map((c) => ('cylinder' in c ? { ...c, cylinder: 4 } : c)) }),
  ).toContain('/channels/5/cylinder The engine has 3 cylinders.');
});

it('lays the numbers of the reference beside the own ones, and calls nothing worse that was recorded otherwise', () => {
  const good = question('idle', [], ['contribution', 'knock']);
  const bad = question(
    'idle',
    [{ kind: 'misfires', cylinder: 3, share: 1 }],
    ['contribution', 'knock'],
    {},
    ENGINE_SIGNALS,
    6,
  );
  const beside = (own: object, reference: object) =>
    findings({ ...own, reference }).findings.flatMap((f) =>
      f.kind === 'change' && f.of === 'contribution' ? [f] : [],
    );
  const changes = beside(bad, good);
  expect(changes).toHaveLength(8);
  const worse = changes.filter((c) => c.severity === 'attention');
  expect(worse.map((c) => [c.cylinder, c.quantity])).toEqual(
    expect.arrayContaining([
      [3, 'relative'],
      [3, 'misfires'],
    ]),
  );
  expect(worse.every((c) => c.cylinder === 3)).toBe(true);
  const otherwise = beside({ ...bad, condition: 'idle' }, { ...good, condition: 'load' });
  expect(otherwise.some((c) => c.severity === 'attention')).toBe(false);
  expect(otherwise.find((c) => c.cylinder === 3)?.severity).toBe('none');
});

it('judges the current of the starter by the limits of its channel where it has some', () => {
  const limited = (upper: number) => {
    const own = question('cranking', [], ['relative-compression']);
    const channels = own.channels.map((c) => (c.column === 'starter' ? { ...c, limits: { upper } } : c));
    return findings({ ...own, channels }).findings.find((f) => f.kind === 'cranking');
  };
  expect(limited(400)).toMatchObject({ severity: 'none' });
  const over = limited(150);
  expect(over?.severity).toBe('fail');
  expect(over?.reasons.join(' ')).toContain('than this starter needs (up to 150 A)');
});
