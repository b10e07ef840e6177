import { chromium } from 'playwright';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const p = await (await b.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion:'reduce' })).newPage();
p.on('console', m => console.log(m.text())); p.on('pageerror', e => console.log('ERR', e.message));
await p.goto('file:///tmp/s/oa/html/index.html');
await p.waitForTimeout(800);
await p.screenshot({ path: '/tmp/s/1.png' });
await p.getByRole('button', { name: 'Yes' }).click();
await p.getByText('Pages', { exact: true }).click();
await p.waitForTimeout(800);
await p.screenshot({ path: '/tmp/s/2.png' });
await p.getByRole('searchbox').fill('moon');
await p.waitForTimeout(800);
await p.screenshot({ path: '/tmp/s/3.png' });
await p.getByRole('link',{name:/Moon|moon/}).nth(3).click();
await p.waitForTimeout(800); console.log(p.url());
for (const t of ['oauto','oshapes','opicture']) { await p.goto(`file:///tmp/s/${t}/html/index.html#page-3`); await p.waitForTimeout(500); await p.screenshot({ path: `/tmp/s/t-${t}.png` }); }
await b.close();
