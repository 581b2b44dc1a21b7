import { chromium } from '@playwright/test';
import { DEMO_PIN } from '../demo/fleet';
import { demoId } from '../demo/load';
const [, , path, out, w = '1280', h = '800', who = 'Ines Varga', click] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox'] });
const c = await b.newContext({ baseURL: 'http://127.0.0.1:4180', viewport: { width: +w, height: +h }, hasTouch: +w < 900 });
await c.request.post('/api/session/sign-in', { data: { name: who, pin: DEMO_PIN } });
const L=process.env.LOC; if(L){const [language,decimal,units,dates]=L.split('/'); console.log((await c.request.post('/api/session/locale',{data:{locale:{language,decimal,units,dates}}})).status());} else await c.request.post('/api/session/locale',{data:{locale:null}});
const p = await c.newPage();
await p.goto(path!.replace(/\{(\w+):([^}]+)\}/g, (_, k, v) => demoId(k, ...v.split(','))));
await p.waitForTimeout(2000);
if (click) { for (const x of click.split('|')) { await p.getByText(x).first().click(); await p.waitForTimeout(800); } }
await p.screenshot({ path: out });
await b.close();
