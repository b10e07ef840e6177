// npm run screenshots [-- NAME …]: takes the pictures of the README anew, from a server of its own with nothing but the samples.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import type { Page } from '@playwright/test';
import { CHROMIUM } from './chromium.ts';
import { startServer } from './ownServer.ts';
import { addOutput, runOutput, scoreRow } from './scoreRows.ts';
import { flat } from '../core/test/odf/support/flatFile.ts';

const PORT = 4790;
const ADDRESS = `http://127.0.0.1:${PORT}`;
const FOLDER = 'docs/screenshots';

/** A leaflet from elsewhere, as it was and as it came a week later. */
const leaflet = (pages: string[][]): Buffer =>
  Buffer.from(
    flat({
      kind: 'presentation',
      meta: '<dc:title>Evenings on the hill</dc:title>',
      styles:
        '<style:style style:name="Sky-title" style:display-name="Sky title" style:family="presentation"><style:text-properties fo:font-size="28pt" fo:font-family="Verdana"/></style:style><draw:gradient draw:name="H" draw:style="square" draw:start-color="#1e5b4b" draw:end-color="#ffffff"/>',
      automatic:
        '<style:style style:name="gr1" style:family="graphic"><style:graphic-properties draw:fill="gradient" draw:fill-gradient-name="H"/></style:style><style:style style:name="T1" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style>',
      pages: pages
        .map(([title, ...rest], i) => {
          const at = (y: number, height: number): string => `svg:x="2cm" svg:y="${y}cm" svg:width="20cm" svg:height="${height}cm"`;
          const texts = rest.map(
            (t, k) => `<draw:frame ${at(5 + 3 * k, 2)}><draw:text-box><text:p>${t}</text:p></draw:text-box></draw:frame>`,
          );
          return `<draw:page draw:name="page${i + 1}" draw:master-page-name="M"><draw:rect draw:style-name="gr1" ${at(9, 0.4)}/><draw:frame presentation:style-name="Sky-title" ${at(1, 2)}><draw:text-box><text:p>${title}</text:p></draw:text-box></draw:frame>${texts.join('')}</draw:page>`;
        })
        .join(''),
    }),
  );
const WAS = [
  ['Evenings on the hill', 'Marrowby opens its <text:span text:style-name="T1">dome</text:span> to visitors on Fridays in March.'],
  ['How to come', 'The path from the village takes forty minutes.', 'Bring a coat: the dome is as cold as the night.'],
  ['What is seen', 'The moon, two planets, and what the clouds leave.'],
];
const CAME = [
  [
    'Evenings on the hill',
    'Marrowby opens its <text:span text:style-name="T1">dome</text:span> to visitors on Fridays in March and April.',
  ],
  ['A word before', 'This leaflet takes the place of that of February.'],
  ['How to come', 'The bus from the station stops at the gate.', 'Bring a coat: the dome is as cold as the night.'],
];

async function make(page: Page, output: string, called: RegExp): Promise<void> {
  await addOutput(page, called);
  await page.getByRole('button', { name: 'Close settings' }).click();
  await runOutput(scoreRow(page, output), 120_000);
}

async function takeAll(page: Page, wanted: ReadonlySet<string>): Promise<void> {
  const shot = async (name: string): Promise<void> => {
    await page.waitForTimeout(900);
    if (wanted.size === 0 || wanted.has(name)) await page.screenshot({ path: join(FOLDER, `${name}.png`) });
  };
  await page.goto(ADDRESS);
  for (const title of ['The Marrowby Almanac', 'Handbook for Volunteer Observers', 'Five Worlds', 'Open Dome Night'])
    await page.getByText(title).first().waitFor({ timeout: 120_000 });
  const list = (await (await page.request.get(`${ADDRESS}/api/folios`)).json()) as { id: string; title: string }[];
  const almanac = list.find((f) => f.title === 'The Marrowby Almanac')!.id;
  const handbook = list.find((f) => f.title === 'Handbook for Volunteer Observers')!.id;
  const goTo = async (id: string, rest: string): Promise<void> => {
    await page.goto(`${ADDRESS}/d/${id}/${rest}`);
    await page.locator('.spread .glyphs, .score, .pair').first().waitFor({ state: 'attached' });
  };

  await goTo(almanac, 'outputs');
  await make(page, 'html', /^Web edition/);
  await make(page, 'pdf', /^PDF/);
  await make(page, 'epub', /^E-book(?! of)/);
  await make(page, 'epub-fixed', /^E-book of fixed pages/);
  await page.getByRole('button', { name: 'PDF, page 6', exact: false }).click();
  await shot('outputs');
  await goTo(almanac, 'outputs?below=weight');
  await scoreRow(page, 'html').locator('.output-name').click();
  await page.locator('.weights .recharts-bar-rectangle').first().waitFor();
  await shot('weights');
  await scoreRow(page, 'html').getByRole('button', { name: 'Settings' }).click();
  const sheet = page.getByRole('complementary', { name: 'Settings' });
  for (const [ask, answer] of [
    ['How will it be read?', 'Leafed through, like paper'],
    ['Must pages keep their size?', 'No, they may fit the window'],
    ['Must it work without a connection?', 'Yes, once it has been opened'],
  ] as const) {
    await sheet.getByLabel(ask).click();
    await page.locator('.ant-select-dropdown:visible').getByText(answer, { exact: true }).click();
  }
  await sheet.getByRole('button', { name: 'Set it so' }).click();
  await sheet.getByRole('button', { name: 'Try it with the collector here' }).click();
  await sheet.locator('.start-from summary').scrollIntoViewIfNeeded();
  await page.waitForTimeout(6000);
  await shot('settings');
  await page.getByRole('button', { name: 'Close settings' }).click();
  await runOutput(scoreRow(page, 'html'), 120_000);
  await page.getByRole('link', { name: 'Handover' }).click();
  await page.getByRole('button', { name: 'Publish on the trial host' }).click();
  const site = await page.locator('.site-address a').getAttribute('href');
  for (const pages of [9, 5, 3]) {
    const reader = await (await page.context().browser()!.newContext({ reducedMotion: 'reduce' })).newPage();
    await reader.goto(site!);
    await reader.getByRole('button', { name: 'Yes', exact: true }).click();
    for (let n = 0; n < pages; n++) {
      await reader.keyboard.press('ArrowRight');
      await reader.waitForTimeout(200);
    }
    await reader.waitForTimeout(300);
    await reader.context().close();
  }
  await page.getByRole('button', { name: 'Open on a phone …' }).click();
  await page.locator('.result', { has: page.locator('.site') }).scrollIntoViewIfNeeded();
  await page.getByRole('button', { name: 'What readers did' }).click();
  await page.locator('.reader-charts .recharts-bar-rectangle').first().waitFor({ timeout: 30_000 });
  await page.locator('.handover').evaluate((e) => e.scrollTo(0, 0));
  await shot('handover');
  await goTo(almanac, 'compare?page=6');
  await page.locator('.pair').getByRole('figure').nth(1).waitFor();
  // The points of the whole document are known once all of it is set, running heads as well.
  await page.getByRole('link', { name: /Intake.*\d/ }).waitFor({ timeout: 60_000 });
  await page.waitForLoadState('networkidle');
  await shot('compare');
  await page.getByText('E-book of fixed pages', { exact: true }).click();
  await page.getByText('Tablet, turned').click();
  await shot('fixed');
  await goTo(almanac, 'intake?page=4&item=feature-2');
  await shot('pages');
  await goTo(almanac, 'structure?page=4');
  await shot('structure');
  await goTo(almanac, 'languages?language=de&page=2&part=desk');
  await page.getByLabel('Find', { exact: true }).fill('better questions');
  await page.locator('.desk-target').first().click();
  await page.waitForTimeout(1500);
  await shot('languages');
  await goTo(almanac, 'languages?language=de&part=people');
  await page.getByLabel('Name', { exact: true }).fill('Ilse Brandt');
  await page.getByLabel('Mail', { exact: true }).fill('ilse@wortwerk.example');
  await page.getByRole('textbox', { name: 'Pages' }).fill('2-7');
  await page.getByRole('button', { name: 'Send the mail' }).click();
  await page.getByLabel('Jobs').getByText('Ilse Brandt').waitFor();
  await page.goto(`${ADDRESS}/outbox`);
  await page.goto((await page.getByLabel('Mail').getByRole('link', { name: /^http/ }).getAttribute('href'))!);
  await page.getByRole('button', { name: 'Take it on' }).click();
  await page.getByLabel('Find', { exact: true }).fill('still evening');
  await page.locator('.desk-target').first().click();
  await page.getByLabel('Translation').fill('An einem stillen Abend');
  await page.getByLabel('From the memory').waitFor();
  await page.waitForTimeout(1500);
  await shot('translator');
  await goTo(almanac, 'motion?page=6&item=moon-phases');
  await shot('motion');
  await goTo(handbook, 'outputs');
  await make(page, 'epub', /^E-book(?! of)/);
  await goTo(handbook, 'compare?page=14&device=tablet');
  await shot('reading');

  await goTo(almanac, 'outputs');
  await make(page, 'docx', /^Text document/);
  await scoreRow(page, 'docx').getByRole('button', { name: 'Settings' }).click();
  await sheet.getByLabel('What for').click();
  await page.locator('.ant-select-dropdown:visible').getByText('As laid out', { exact: true }).click();
  await page.getByRole('button', { name: 'Close settings' }).click();
  await scoreRow(page, 'docx').locator('.state', { hasText: 'stale' }).waitFor();
  await runOutput(scoreRow(page, 'docx'), 120_000);
  await goTo(almanac, 'compare?page=6');
  await page.locator('.ant-segmented').getByText('Text document').click();
  await page.waitForTimeout(4000);
  await shot('office');

  await goTo(almanac, 'outputs');
  await make(page, 'pptx', /^Slides/);
  await goTo(almanac, 'compare?page=5');
  await page.locator('.ant-segmented').getByText('Slides', { exact: true }).click();
  await page.waitForTimeout(4000);
  await shot('slides');

  await page.goto(ADDRESS);
  await page.locator('input[type=file]').setInputFiles({ name: 'evenings.fodp', mimeType: 'text/xml', buffer: leaflet(WAS) });
  await page.getByRole('button', { name: 'Open it' }).click();
  await page.locator('.spread .glyphs').first().waitFor({ state: 'attached' });
  await shot('intake');
  await page.getByRole('link', { name: 'Bring in a newer version of it …' }).click();
  await page.getByLabel('Newer version').setInputFiles({ name: 'evenings-2.fodp', mimeType: 'text/xml', buffer: leaflet(CAME) });
  await page.getByText('evenings-2.fodp has been read.').waitFor();
  await shot('newer');
  await page.goto(ADDRESS);
  await page.getByText('Evenings on the hill').first().waitFor();
  await shot('shelf');
}

const data = await mkdtemp(join(tmpdir(), 'folio-pictures-'));
const server = await startServer(PORT, data);
try {
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await takeAll(page, new Set(process.argv.slice(2)));
  await browser.close();
} finally {
  server.kill();
  await rm(data, { recursive: true, force: true, maxRetries: 5 });
}
