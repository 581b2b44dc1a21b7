import { chromium } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { DEMO_PIN, PERSONS } from '../demo/fleet';
import { newRun } from '../e2e/bench-page';
import { BROWSER_ARGS } from '../bench/screen';
const base = process.env.BASE ?? 'http://127.0.0.1:4180';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: BROWSER_ARGS });
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
await context.request.post(`${base}/api/session/sign-in`, { data: { name: PERSONS[0].name, pin: DEMO_PIN } });
const page = await context.newPage();
await page.goto(`${base}/runs/${await newRun(context.request, 'PL-07', base)}`, { waitUntil: 'load' });
await page.waitForTimeout(3000);
await page.keyboard.type('0.2'); await page.keyboard.press('Enter'); await page.waitForTimeout(500);
const client = await context.newCDPSession(page);
await client.send('Performance.enable');
const KEYS = ['ScriptDuration', 'LayoutDuration', 'RecalcStyleDuration', 'TaskDuration', 'RecalcStyleCount', 'LayoutCount'];
const get = async () => { const { metrics } = await client.send('Performance.getMetrics'); return KEYS.map((k) => (metrics.find((m) => m.name === k)?.value ?? 0) * (k.endsWith('Duration') ? 1000 : 1)); };
const rows: number[][] = [];
if (process.env.PROFILE) { await client.send('Profiler.enable'); await client.send('Profiler.setSamplingInterval', { interval: 200 }); }
const traces: unknown[] = [];
for (let i = 0; i < 40; i++) {
  await page.keyboard.press('ArrowDown');
  await page.keyboard.type(`0.${(i % 9) + 1}`, { delay: 60 });
  await page.waitForTimeout(400);
  const before = await get();
  if (process.env.PROFILE) await client.send('Profiler.start');
  await page.keyboard.press('Enter');
  await page.evaluate('new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)))');
  if (process.env.PROFILE) traces.push((await client.send('Profiler.stop')).profile);
  const after = await get();
  rows.push(after.map((v, k) => v - (before[k] ?? 0)));
  await page.waitForTimeout(200);
}
const med = (k: number) => rows.map((r) => r[k]!).sort((a, b) => a - b)[20]!;
console.log(KEYS.map((k, i) => `${k} ${med(i).toFixed(2)}`).join('\n'));
const sums = rows.map((r) => r[0]! + r[1]! + r[2]!).sort((a, b) => a - b);
console.log('sum median', sums[20], 'p95', sums[38]);
// an empty frame: what measuring itself costs
const empty: number[] = [];
for (let i = 0; i < 20; i++) { await page.waitForTimeout(200); const b = await get(); await page.evaluate('new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)))'); const a = await get(); empty.push(a[0]! - b[0]! + a[1]! - b[1]! + a[2]! - b[2]!); }
console.log('empty', empty.sort((a, b) => a - b)[10]);
if (process.env.PROFILE) writeFileSync('/tmp/profiles.json', JSON.stringify(traces));
await browser.close();
