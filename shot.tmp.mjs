import { chromium } from '@playwright/test';
export const ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
const [, , path, out, w = '1280', h = '800', ...acts] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ARGS });
const p = await b.newPage({ viewport: { width: +w, height: +h } });
p.on('console', (m) => {
  if (['error', 'warning'].includes(m.type())) console.log('CONSOLE', m.text().slice(0, 600));
});
p.on('pageerror', (e) => console.log('PAGEERROR', String(e).slice(0, 600)));
p.on('response', (r) => {
  if (r.status() >= 400) console.log(r.status(), r.url());
});
await p.goto('http://127.0.0.1:4310' + path);
await p.waitForLoadState('networkidle').catch(() => {});
for (const a of acts) {
  const [k, ...r] = a.split('=');
  const v = r.join('=');
  if (k === 'click') await p.click(v);
  if (k === 'key') await p.keyboard.press(v);
  if (k === 'type') await p.keyboard.type(v);
  if (k === 'wait') await p.waitForTimeout(+v);
  if (k === 'eval') console.log(await p.evaluate(v));
}
await p.waitForTimeout(400);
await p.screenshot({ path: '/tmp/shots/' + out });
await b.close();
