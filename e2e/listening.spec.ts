import { expect, test, type Page } from '@playwright/test';
import type { RunView } from '../application/views';
import { seriousIssues } from './axe';
import { freshDevice, newRun } from './bench-page';
import { addMeter, openListening, ProbeHands, SimulatedMeterProcess, takeMeter, VEE_EIGHT } from './meter';

async function viewOf(page: Page, run: string): Promise<RunView> {
  return (await (await page.request.get(`/api/runs/${run}`)).json()) as RunView;
}
/** What the server has of a run, by position, once all of it is there. */
async function verdictsOf(page: Page, run: string): Promise<Record<string, string>> {
  await expect.poll(async () => (await viewOf(page, run)).judgement.readings.filter((r) => r.verdict !== 'not-measured').length).toBe(8); // prettier-ignore
  return Object.fromEntries((await viewOf(page, run)).judgement.readings.map((r) => [r.position, r.verdict]));
}
const EXPECTED = Object.fromEntries(
  VEE_EIGHT.order.map((p) => [p, p === 5 ? 'open' : p === 4 ? 'unsteady' : 'within']),
);

/** A serial adapter that is not there: what the simulated meter sends comes out of it. */
async function plugAdapterIn(page: Page, meter: SimulatedMeterProcess): Promise<void> {
  let reader: ReadableStreamDefaultReader<Uint8Array> | null = null;
  await page.exposeFunction('openAdapter', async () => {
    reader = (await fetch(`${meter.page}/lines`)).body?.getReader() ?? null;
  });
  // Nothing: it was pulled out.
  await page.exposeFunction('readAdapter', async () => {
    const chunk = await reader?.read().catch(() => null);
    return chunk?.value ? [...chunk.value] : null;
  });
  await page.addInitScript(`
    const port = {
      readable: null,
      writable: null,
      async open() {
        await openAdapter();
        this.readable = new ReadableStream({
          async pull(controller) {
            const bytes = await readAdapter();
            if (bytes) controller.enqueue(Uint8Array.from(bytes));
            else controller.close();
          },
        });
      },
      async close() { this.readable = null; },
    };
    Object.defineProperty(navigator, 'serial', { value: { getPorts: async () => [port], requestPort: async () => port } });
  `);
}

test('a meter in the network: eight plugs with no key pressed, one open, one that wanders', async ({
  page,
  browser,
  baseURL,
}) => {
  const meter = new SimulatedMeterProcess(5531);
  await meter.start(...VEE_EIGHT.meter);
  try {
    const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
    const added = await addMeter(lead.request, `Network meter ${Date.now()}`, 'North Sluice', {
      kind: 'network',
      host: '127.0.0.1',
      port: 5531,
    });
    expect(added.status, added.text).toBe(201);
    await lead.close();
    const run = await newRun(page.request, 'PL-07');
    await takeMeter(page.request, run, added.id);
    await openListening(page, run);
    const hands = new ProbeHands(page, meter);
    await hands.zero();
    await hands.readEight();
    expect(await verdictsOf(page, run)).toEqual(EXPECTED);
    await expect(page.getByRole('region', { name: 'Listening' })).toContainText('Cylinder 8');
    expect(await seriousIssues(page)).toEqual([]);
    await page.keyboard.press('f');
    await expect(page.getByRole('dialog')).toBeVisible();
    expect(await seriousIssues(page)).toEqual([]);
  } finally {
    meter.stop();
  }
});

test('a serial adapter: the same, with a meter that dies in the middle and one that is on the wrong switch', async ({
  page,
  browser,
  baseURL,
}) => {
  const meter = new SimulatedMeterProcess(5541);
  await meter.start(...VEE_EIGHT.meter);
  try {
    const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
    const added = await addMeter(lead.request, 'Serial meter', 'North Sluice', {
      kind: 'serial',
      baud: 9600,
      speaks: 'unasked',
    });
    expect(added.status, added.text).toBe(201);
    await lead.close();
    await plugAdapterIn(page, meter);
    const run = await newRun(page.request, 'PL-07');
    await takeMeter(page.request, run, added.id);
    await openListening(page, run);
    const hands = new ProbeHands(page, meter);
    await hands.zero();
    for (const p of [1, 3]) await hands.touch(p);
    await meter.power(false);
    await expect(hands.listening).toContainText('pulled out');
    // Typed entry goes on meanwhile.
    await page.keyboard.type('0.71');
    await page.keyboard.press('Enter');
    await expect(hands.framed).toHaveText('Cylinder 7');
    await meter.power(true);
    await expect(page.getByLabel('The meter shows')).toHaveText('OL', { timeout: 10_000 });
    await meter.mode('voltage');
    await meter.probe(7);
    await expect(hands.listening).toContainText('this test needs resistance');
    await hands.lift();
    await meter.mode('resistance');
    for (const p of [7, 2, 4, 6, 8]) await hands.touch(p);
    const verdicts = await verdictsOf(page, run);
    expect(verdicts).toEqual({ ...EXPECTED, 5: 'within' });
    expect((await viewOf(page, run)).readings).toHaveLength(8);
  } finally {
    meter.stop();
  }
});

test('two benches with two meters do not hear each other; the last position is read again', async ({
  browser,
  baseURL,
}) => {
  const meters = [new SimulatedMeterProcess(5551), new SimulatedMeterProcess(5561)] as const;
  await Promise.all([meters[0].start('--vee'), meters[1].start('--vee', '--fault', 'plug 3 series 40')]);
  try {
    const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
    const verdicts = await Promise.all(
      meters.map(async (meter, i) => {
        const link = { kind: 'network', host: '127.0.0.1', port: meter.port };
        const added = await addMeter(lead.request, i ? 'Right hand meter' : 'Left hand meter', 'North Sluice', link);
        expect(added.status, added.text).toBe(201);
        const context = await freshDevice(browser, baseURL, 'Ines Varga');
        const page = await context.newPage();
        const run = await newRun(page.request, i ? 'PL-23' : 'PL-07');
        await takeMeter(page.request, run, added.id);
        await openListening(page, run);
        const hands = new ProbeHands(page, meter);
        await hands.zero();
        for (const p of [1, 3]) await hands.touch(p);
        await page.keyboard.press('u');
        await expect(hands.framed).toHaveText('Correct cylinder 3');
        await meter.probe(3);
        await expect(hands.framed).toHaveText('Cylinder 5', { timeout: 12_000 });
        await hands.lift();
        for (const p of VEE_EIGHT.order.slice(2)) await hands.touch(p);
        const read = await verdictsOf(page, run);
        const of3 = (await viewOf(page, run)).readings.filter((r) => r.position === 3);
        expect(of3.map((r) => r.why)).toEqual([null, 'read again']);
        await context.close();
        return read[3];
      }),
    );
    expect(verdicts).toEqual(['within', 'high']);
    await lead.close();
  } finally {
    meters.forEach((m) => m.stop());
  }
});

test('a device that floods, sends lines without end and noise: it is said, and the bench goes on', async ({
  page,
  browser,
  baseURL,
}) => {
  await page.addInitScript(`
    const port = {
      readable: null,
      writable: null,
      async open() {
        let n = 0;
        const text = new TextEncoder();
        this.readable = new ReadableStream({
          start(controller) {
            this.timer = setInterval(() => {
              n++;
              // 10,000 lines a second, a line of a megabyte now and then, bytes that are no text, and no number.
              controller.enqueue(text.encode('0.61 OHM? 17\\r\\n'.repeat(500)));
              if (n % 20 === 0) controller.enqueue(new Uint8Array(1e6).fill(65));
              if (n % 7 === 0) controller.enqueue(crypto.getRandomValues(new Uint8Array(4096)));
              controller.enqueue(text.encode('NaN OHM\\r\\n9.9E37 OHM OHM\\r\\n'));
            }, 50);
          },
          cancel() { clearInterval(this.timer); },
        });
      },
      async close() { this.readable = null; },
    };
    Object.defineProperty(navigator, 'serial', { value: { getPorts: async () => [port], requestPort: async () => port } });
  `);
  const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
  const added = await addMeter(lead.request, 'Flooding meter', 'North Sluice', {
    kind: 'serial',
    baud: 9600,
    speaks: 'unasked',
  });
  expect(added.status, added.text).toBe(201);
  await lead.close();
  const run = await newRun(page.request, 'PL-07');
  await takeMeter(page.request, run, added.id);
  await page.goto(`/runs/${run}`);
  const heap = () =>
    page.evaluate(() => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize / 1e6);
  await page.getByRole('button', { name: 'Listen' }).click();
  await expect(page.getByRole('region', { name: 'Listening' })).toContainText('What it sends cannot be read', {
    timeout: 20_000,
  });
  const before = await heap();
  // Typed entry goes on under the flood.
  for (const value of ['0.2', '0.61', '0.62', '0.63']) {
    await page.locator('#entry').fill(value);
    await page.keyboard.press('Enter');
  }
  await expect.poll(async () => (await viewOf(page, run)).readings.length).toBeGreaterThanOrEqual(3);
  await page.waitForTimeout(6000);
  expect((await heap()) - before).toBeLessThan(150);
});

test('the server goes to no address that no lead has entered', async ({ browser, baseURL }) => {
  const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
  const technician = await freshDevice(browser, baseURL, 'Ines Varga');
  const typed = await addMeter(lead.request, 'Typed meter', 'North Sluice', null);
  expect(typed.status, typed.text).toBe(201);
  const wrong = await addMeter(lead.request, 'Nowhere', 'North Sluice', {
    kind: 'network',
    host: 'http://a b',
    port: 5025,
  });
  expect(wrong.status).toBe(422);
  expect(wrong.text).toContain('/link/host');
  // A technician enters none.
  const by = await addMeter(
    technician.request,
    'Mine',
    'North Sluice',
    { kind: 'network', host: '127.0.0.1', port: 5432 },
    'Ines Varga',
  );
  expect(by.status).toBe(403);
  const none = await technician.request.get(
    `/api/instruments/${typed.id}/values?quantity=resistance&host=127.0.0.1&port=5432`,
  );
  expect(none.status()).toBe(422);
  expect(await none.text()).toContain('No lead has entered an address');
  await technician.close();
  await lead.close();
});

test('an instrument is given its way in, and tried, on its card', async ({ browser, baseURL }) => {
  const meter = new SimulatedMeterProcess(5571);
  await meter.start('--vee');
  const lead = await freshDevice(browser, baseURL, 'Odile Brandt');
  try {
    const page = await lead.newPage();
    await page.goto('/instruments');
    await page
      .getByRole('region', { name: 'Quay Yard' })
      .getByRole('button', { name: 'Instrument', exact: true })
      .click();
    const form = page.getByRole('dialog');
    await form.getByLabel('Name').fill('Meter at the wall');
    await form.getByLabel('Way').selectOption('network');
    await form.getByLabel('Address').fill('not an address');
    await form.getByRole('button', { name: 'Keep' }).click();
    await expect(form.getByText('An address of the network, such as')).toBeVisible();
    await form.getByLabel('Address').fill('127.0.0.1');
    await form.getByLabel('Port').fill('5571');
    await form.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByText('In the network: 127.0.0.1, port 5571')).toBeVisible();
    await page.getByRole('button', { name: 'Try Meter at the wall' }).click();
    await expect(page.getByLabel('Meter at the wall shows')).toHaveText('OL');
    await meter.probe(1);
    await expect(page.getByLabel('Meter at the wall shows')).toHaveText(/0\.8\d+ Ω/);
    meter.stop();
    await expect(page.getByText(/The meter is not there/)).toBeVisible();
    expect(await seriousIssues(page)).toEqual([]);
  } finally {
    meter.stop();
    await lead.close();
  }
});
