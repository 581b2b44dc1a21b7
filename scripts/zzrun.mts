import { chromium } from '@playwright/test'; import { v7 } from 'uuid';
import { DEMO_PIN } from '../demo/fleet'; import { demoId } from '../demo/load';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox'] });
const c = await b.newContext({ baseURL: 'http://127.0.0.1:4180', viewport: { width: 1280, height: 800 } });
await c.request.post('/api/session/sign-in', { data: { name: 'Ines Varga', pin: DEMO_PIN } });
const [language,decimal,units,dates]=process.env.LOC!.split('/');
await c.request.post('/api/session/locale',{data:{locale:{language,decimal,units,dates}}});
const [jobId,id]=[v7(),v7()];
const u=await c.request.post('/api/jobs',{data:{id:jobId,unitId:demoId('unit','PL-14'),complaint:'no power'}}); console.log(u.status());
console.log((await c.request.post('/api/runs',{data:{id,jobId,test:process.argv[2]}})).status());
const p=await c.newPage(); await p.goto('/runs/'+id); await p.waitForTimeout(1500);
for(const e of process.argv.slice(4)){ await p.keyboard.type(e); await p.keyboard.press('Enter'); await p.waitForTimeout(700);}
await p.screenshot({path:process.argv[3]}); 
console.log((await (await c.request.get('/api/runs/'+id)).text()).match(/"entry":"[^"]*"/g)?.slice(0,4));
await b.close();
