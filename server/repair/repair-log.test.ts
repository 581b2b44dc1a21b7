import { v7 } from 'uuid';
import { checkCharacter } from '../../core/repair/coding';
import { ASSUMED } from '../../core/repair/suggest';
import type { RepairRecord } from '../../core/repair/types';
import { chooseDepot } from '../fleet/fleet';
import { recordEvidence } from '../evidence/evidence';
import { writeFinding } from '../evidence/findings';
import { viewJob } from '../jobs/view-job';
import { recordReading } from '../readings/record-reading';
import { keepServiceData, repairRecordsOf, serviceDataFor, writeRepairRecord } from './repair-log';
import { verifyJob } from '../audit/audit-trail';
import { workshopActor, workshopId } from '../testing/workshop';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { openJob, startRun } from '../jobs/open-job';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
  // Trim codes of one engine: thirty characters, the last of them checks the others.
  await keepServiceData(test_.db, {
    id: v7(),
    by: LEAD,
    family: 'L6-109',
    kind: 'coding',
    key: 'injector',
    body: { alphabet: ALPHABET, lengths: [30], check: 'mod-alphabet', groups: 5 },
    source: 'sheet 33',
  });
});
afterAll(() => test_.drop());

const BY = 'Ines Varga';
const LEAD = 'Odile Brandt';
const ALPHABET = '0123456789ABCDEFGHJKLMNPRSTUVWXYZ';
const INPUTS = {
  positions: 6,
  failed: 1,
  part: 41200,
  access_min: 60,
  each_min: 30,
  labour: 7800,
  age_h: 4000,
  horizon_h: 1500,
  life: { shape: 2, scale_h: 8000 },
  breakage: 0.02,
  breakageCost: 100000,
  comeback: 30000,
};
const code = (body: string): string => body + checkCharacter(body, ALPHABET, 'mod-alphabet');

/** A job on a unit whose engine has rules for codes, with one finding. */
async function newJob(unit = 'PL-30', positions: readonly number[] = [2]): Promise<{ job: string; finding: string }> {
  const [job, finding] = [v7(), v7()];
  await openJob(test_.db, { id: job, unitId: workshopId('unit', unit), complaint: 'x', hours: 4000, by: BY });
  await writeFinding(test_.db, job, {
    id: finding,
    by: BY,
    finding: {
      kind: 'found',
      what: 'part',
      name: 'injector',
      positions: [...positions],
      confidence: 'certain',
      text: 'Injector is open',
      supports: [],
      against: [],
      ruledOut: [],
      advice: '',
    },
  });
  return { job, finding };
}
const write = (job: string, record: RepairRecord, by = BY, id = v7()) =>
  writeRepairRecord(test_.db, job, { id, by, record }, workshopActor(by));
/** Path and text of the first refusal. */
async function refusal(done: ReturnType<typeof write>): Promise<string> {
  const result = await done;
  return result.ok ? 'taken' : `${result.error.errors[0]?.path ?? ''} ${result.error.errors[0]?.message ?? ''}`;
}

describe('what stands between finding and release', () => {
  test('ticks and own steps are of a finding of this job; many steps are written at once or not at all', async () => {
    const [{ job, finding }, other] = [await newJob(), await newJob()];
    const ticks = (of: string, more: object = {}, steps: readonly string[] = ['clean', 'washer']): RepairRecord => ({
      kind: 'ticks',
      finding: of,
      sequence: 'injectors',
      ticks: steps.map((step) => ({ step, position: 2 })),
      ...more,
    });
    expect(await refusal(write(job, ticks(other.finding)))).toMatch(/^\/record\/finding This is no finding/);
    expect(await refusal(write(job, { kind: 'own-step', finding: other.finding, say: 'x' }))).toMatch(
      /^\/record\/finding/,
    );
    expect(await refusal(write(job, ticks(finding, {}, ['clean', 'florp'])))).toMatch(/^\/record\/step/);
    expect(await refusal(write(job, ticks(finding, {}, ['clean', 'torque'])))).toMatch(/^\/record\/value/);
    expect(await refusal(write(job, ticks(finding, { left: 'not measured' })))).toMatch(/^\/record\/left/);
    const steps = async () =>
      ((await repairRecordsOf(test_.db, [job])).get(job) ?? []).flatMap((r) =>
        r.body.kind === 'step' ? [r.body] : [],
      );
    expect(await steps()).toEqual([]);
    expect(await refusal(write(job, ticks(finding, { value: '30 Nm' }, ['clean', 'torque'])))).toBe('taken');
    expect(await refusal(write(job, ticks(finding, { left: 'does not apply' }, ['coding'])))).toBe('taken');
    expect((await steps()).map((s) => [s.step, s.position, s.left ?? s.value])).toEqual([
      ['clean', 2, '30 Nm'],
      ['torque', 2, '30 Nm'],
      ['coding', 2, 'does not apply'],
    ]);
  });
  test('a decision and a quotation are of a finding of this job, an answer of a quotation of this job', async () => {
    const [{ job, finding }, other] = [await newJob(), await newJob()];
    expect(
      await refusal(
        write(job, {
          kind: 'decision',
          finding: other.finding,
          school: 'one',
          inputs: INPUTS,
          currency: 'EUR',
          why: '',
        }),
      ),
    ).toContain('/record/finding');
    expect(
      await refusal(
        write(job, {
          kind: 'decision',
          finding,
          school: 'one',
          inputs: { ...INPUTS, failed: 9 },
          currency: 'EUR',
          why: '',
        }),
      ),
    ).toBe('/record/inputs/failed There are 6 positions.');
    const quotation = v7();
    expect(
      await refusal(
        write(
          job,
          {
            kind: 'quotation',
            finding,
            currency: 'EUR',
            lines: [{ text: 'Injector', quantity: 1, price: 41200 }],
            note: '',
          },
          BY,
          quotation,
        ),
      ),
    ).toBe('taken');
    expect(await refusal(write(other.job, { kind: 'answer', quotation, answer: 'accepted', said: '' }))).toContain(
      '/record/quotation',
    );
    expect(await refusal(write(job, { kind: 'answer', quotation, answer: 'deferred', said: '' }))).toBe(
      '/record/until Deferred until which day?',
    );
    expect(await refusal(write(job, { kind: 'answer', quotation, answer: 'accepted', said: 'yes' }))).toBe('taken');
    expect((await viewJob(test_.db, job))?.repair.checks.find((c) => c.id === 'agreed')?.state).toBe('done');
  });
  test('the same record sent twice is one record', async () => {
    const { job } = await newJob();
    const id = v7();
    expect(await write(job, { kind: 'scan', outcome: 'clean', said: 'none' }, BY, id)).toMatchObject({
      ok: true,
      value: { duplicate: false },
    });
    expect(await write(job, { kind: 'scan', outcome: 'clean', said: 'none' }, BY, id)).toMatchObject({
      ok: true,
      value: { duplicate: true },
    });
    expect((await viewJob(test_.db, job))?.repair.records).toHaveLength(1);
  });
  test('a step says where, with a value that can be read, in a unit', async () => {
    const { job } = await newJob();
    const step = (more: object): Promise<string> =>
      refusal(write(job, { kind: 'step', sequence: 'injectors', step: 'torque', position: 2, ...more }));
    expect(await step({ step: 'florp' })).toContain('/record/step');
    expect(await step({ position: undefined, value: '30 Nm' })).toContain('/record/position At which');
    expect(await step({ value: '30' })).toContain('In which unit');
    expect(await step({ value: 'tight' })).toContain('Write the value that was reached');
    expect(await step({ value: '22.1 lbf ft', tool: 'wrench 1' })).toBe('taken');
  });
  test('a code by the rules of the engine, of a cylinder that there is, at one cylinder only', async () => {
    const { job } = await newJob();
    const keep = (position: number, text: string, how: 'typed' | 'pasted' = 'pasted'): Promise<string> =>
      refusal(write(job, { kind: 'coding', part: 'injector', position, code: text, how }));
    const good = code('7AF209KD11X8BZ4RMV3C5T6P2H1G9');
    expect(await keep(9, good)).toContain('This engine has 6 cylinders');
    expect(await keep(2, good.slice(0, 25))).toContain('25 characters; these codes have 30');
    expect(await keep(2, good.replace('A', 'O'))).toContain(
      'Character 2, "O", does not occur in these codes; is it "0"?',
    );
    expect(await keep(2, `${good.slice(0, 29)}${good.endsWith('A') ? 'B' : 'A'}`)).toContain('check character');
    expect(await keep(2, good.toLowerCase().replace(/(.{5})/g, '$1 '))).toBe('taken');
    expect(await keep(3, good)).toContain('The same code stands at cylinder 2');
    // Renewed at its own cylinder, the old one is free again.
    expect(await keep(2, code('3KC7P0WD92L5AX8ETM4H6R1JN2U7V'))).toBe('taken');
    expect(await keep(3, good)).toBe('taken');
    expect(
      (await viewJob(test_.db, job))?.repair.records
        .filter((r) => r.body.kind === 'coding')
        .map((r) => (r.body.kind === 'coding' ? r.body.code : '')),
    ).toContain(good);
  });
  test('old codes are those of the unit’s earlier jobs', async () => {
    const first = await newJob();
    const text = code('9ZX209KD11X8BZ4RMV3C5T6P2H1G9');
    await write(first.job, { kind: 'coding', part: 'injector', position: 4, code: text, how: 'photo' });
    const second = await newJob();
    expect((await viewJob(test_.db, second.job))?.repair.oldCodes['4']).toBe(text);
  });
});

describe('release and what comes after it', () => {
  test('not with checks open; a lead may, with a reason for each; then it is closed until it is reopened', async () => {
    const { job } = await newJob();
    expect(await refusal(write(job, { kind: 'release', said: 'ready', waived: [] }))).toContain(
      'Agreed with the payer',
    );
    const open = (await viewJob(test_.db, job))?.repair.checks.filter((c) => c.state !== 'done') ?? [];
    const waived = open.map((c) => ({ check: c.id, because: 'needed tonight' }));
    expect(await refusal(write(job, { kind: 'release', said: 'ready', waived }))).toContain('Odile Brandt may');
    expect(await refusal(write(job, { kind: 'release', said: 'ready', waived: waived.slice(1) }, LEAD))).toContain(
      'Do it, or a lead says why',
    );
    expect(await refusal(write(job, { kind: 'reopen', because: 'x' }))).toContain('This job is open');
    expect(await refusal(write(job, { kind: 'release', said: 'ready', waived }, LEAD))).toBe('taken');
    expect((await viewJob(test_.db, job))?.job.closed).toBe(true);
    expect(await refusal(write(job, { kind: 'scan', outcome: 'clean', said: '' }))).toContain('released. Reopen it');
    expect(await refusal(write(job, { kind: 'reopen', because: 'misfires again' }))).toBe('taken');
    expect((await viewJob(test_.db, job))?.job.closed).toBe(false);
    // Closing and reopening are events like any other.
    expect(await verifyJob(test_.db, job)).toMatchObject({ intact: true });
  });
  test('a comeback is of an earlier job of this unit, and marked once; the earlier job says so', async () => {
    const [first, second, foreign] = [await newJob(), await newJob(), await newJob('PL-27')];
    expect(await refusal(write(second.job, { kind: 'comeback', of: foreign.job }))).toContain(
      'no earlier job of this unit',
    );
    expect(await refusal(write(second.job, { kind: 'comeback', of: second.job }))).toContain('no earlier job');
    expect(await refusal(write(second.job, { kind: 'comeback', of: first.job }))).toBe('taken');
    expect(await refusal(write(second.job, { kind: 'comeback', of: first.job }))).toContain('already');
    expect((await viewJob(test_.db, second.job))?.repair.comebackOf?.id).toBe(first.job);
    expect((await viewJob(test_.db, first.job))?.repair.comebacks.map((c) => c.id)).toEqual([second.job]);
  });
  test('a unit on which nothing was out of its limits needs only its scan', async () => {
    const [job, run] = [v7(), v7()];
    await openJob(test_.db, { id: job, unitId: workshopId('unit', 'PL-22'), complaint: 'yearly check', by: BY });
    await startRun(test_.db, { id: run, jobId: job, test: 'glow-plug-resistance', by: BY });
    for (const n of [1, 2, 3])
      await recordReading(test_.db, run, {
        id: v7(),
        position: n,
        entry: '0.7',
        by: BY,
        takenAt: '2026-11-20T10:00:00Z',
      });
    expect((await viewJob(test_.db, job))?.repair.checks.map((c) => [c.id, c.state])).toEqual([
      ['finding', 'done'],
      ['vehicle-scan', 'open'],
    ]);
    await write(job, { kind: 'scan', outcome: 'clean', said: 'nothing' });
    expect(await refusal(write(job, { kind: 'release', said: 'good for a year', waived: [] }))).toBe('taken');
  });
});

describe('service data', () => {
  test('the engine’s own goes before that for any; the newest counts', async () => {
    const keep = (family: string | null, value: string, by = LEAD) =>
      keepServiceData(test_.db, {
        id: v7(),
        by,
        family,
        kind: 'fitting',
        key: 'module/fit',
        body: { value },
        source: 'sheet 1',
      });
    const now = async (): Promise<unknown> =>
      (await serviceDataFor(test_.db, workshopId('family', 'L6-109'))).find((s) => s.key === 'module/fit')?.body;
    expect(await keep('X9-99', '9 Nm')).toMatchObject({ ok: false });
    // What could not be compared with what is reached is no value.
    expect(JSON.stringify(await keep('L6-109', '11'))).toContain('In which unit');
    await keep('L6-109', '11 Nm');
    await keep(null, '9 Nm');
    expect(await now()).toEqual({ value: '11 Nm' });
    await keep('L6-109', '12 Nm');
    expect(await now()).toEqual({ value: '12 Nm' });
  });
  test('costs that were kept in another currency than the depot reckons in are other numbers: not used', async () => {
    const depot = workshopId('depot', 'North Sluice');
    const start = async () => {
      const view = await viewJob(test_.db, (await newJob()).job);
      return view?.repair.decisions[0];
    };
    await keepServiceData(test_.db, {
      id: v7(),
      by: LEAD,
      family: 'L6-109',
      kind: 'costs',
      key: 'injector',
      source: 'price list, invented',
      body: {
        ...ASSUMED,
        part: 55500,
        access_min: 60,
        each_min: 10,
        labour: 8000,
        breakageCost: 90000,
        comeback: 25000,
        currency: 'EUR',
      },
    });
    expect(await start()).toMatchObject({
      currency: 'EUR',
      costsFrom: 'price list, invented',
      inputs: { part: 55500 },
    });
    expect((await chooseDepot(test_.db, depot, { by: LEAD, currency: 'JPY' })).ok).toBe(true);
    expect(await start()).toMatchObject({ currency: 'JPY', inputs: { part: null }, costsFrom: null });
    // What else the depot chose stays.
    expect((await chooseDepot(test_.db, depot, { by: LEAD, decision: 'simple' })).ok).toBe(true);
    expect((await start())?.currency).toBe('JPY');
    expect((await chooseDepot(test_.db, depot, { by: LEAD, decision: 'three-way', currency: 'EUR' })).ok).toBe(true);
  });
  test('a life is fitted to the workshop’s own failures once there are enough of them', async () => {
    const before = await newJob('PL-30');
    expect((await viewJob(test_.db, before.job))?.repair.decisions[0]?.life).toMatchObject({
      from: 'assumed',
      life: { shape: ASSUMED.shape, scale_h: ASSUMED.scale_h },
    });
    for (const age_h of [2100, 2900, 3300, 4000, 4600, 5100, 5800, 6900]) {
      const { job, finding } = await newJob('PL-30');
      await write(job, {
        kind: 'decision',
        finding,
        school: 'one',
        inputs: { ...INPUTS, age_h },
        currency: 'EUR',
        why: '',
      });
      // Decided anew: only the newest decision of a finding is a failure.
      await write(job, {
        kind: 'decision',
        finding,
        school: 'set',
        inputs: { ...INPUTS, age_h },
        currency: 'EUR',
        why: 'after all',
      });
    }
    const fitted = (await viewJob(test_.db, before.job))?.repair.decisions[0];
    expect(fitted?.life).toMatchObject({ from: 'own history', failures: 8 });
    expect(fitted?.inputs.life.shape).toBeGreaterThan(1);
  });
});

test('what was read before a repair is history to the circuit, and the repair asks for the same test again', async () => {
  const [job, run] = [v7(), v7()];
  await openJob(test_.db, { id: job, unitId: workshopId('unit', 'PL-30'), complaint: 'misfires', by: BY });
  await startRun(test_.db, { id: run, jobId: job, test: 'injector-resistance', by: BY });
  for (const [n, entry] of ['0.6', 'OL', '0.6', '0.6', '0.6', '0.6'].entries())
    await recordReading(test_.db, run, { id: v7(), position: n + 1, entry, by: BY, takenAt: '2026-11-20T10:00:00Z' });
  const share = async (): Promise<number> =>
    (await viewJob(test_.db, job))?.circuits[0]?.diagnosis.suspects
      .filter((s) => s.element === 'injector 2')
      .reduce((sum, s) => sum + s.probability, 0) ?? 0;
  expect(await share()).toBeGreaterThan(0.9);
  await recordEvidence(test_.db, job, {
    id: v7(),
    by: BY,
    evidence: { kind: 'repair', where: 'injector 2', path: false, part: 'injector', position: 2, done: 'renewed' },
  });
  expect(await share()).toBeLessThan(0.3);
  const view = await viewJob(test_.db, job);
  expect(view?.circuits[0]?.before.join()).toContain('injector 2 is new');
  expect(view?.repair.checks.find((c) => c.id === 'measured-again')).toMatchObject({ state: 'open' });
});
