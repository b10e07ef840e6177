import { expect, test } from '@playwright/test';
import type { Locator, Page } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { gzipSync } from 'node:zlib';
import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import AxeBuilder from './axe.ts';

const out = resolve('test-results/motion');
const url = (id: string): string => `file://${join(out, id, 'html', 'index.html')}`;

test.beforeAll(() => {
  const folio = (...args: string[]) =>
    expect(spawnSync(process.execPath, ['dist/folio.mjs', ...args], { encoding: 'utf8' }).status).toBe(0);
  folio('samples', '--out', out);
  folio('convert', join(out, 'marrowby-almanac.efolio'), '--to', 'html', '--pages', '6', '--out', join(out, 'marrowby-almanac'));
  folio('convert', join(out, 'open-dome-night.efolio'), '--to', 'html', '--out', join(out, 'open-dome-night'));
});

const card = (page: Page): Locator => page.locator('.card:not(.off, .leaving)');
const shows = (page: Page, name: string): Promise<void> => expect(card(page)).toHaveAttribute('aria-label', new RegExp(`${name}$`));

test('the player is small: at most 20 kB compressed, and asks for nothing from anywhere', () => {
  const player = readFileSync('dist/player.js');
  expect(gzipSync(player, { level: 9 }).length).toBeLessThan(20_000);
  expect(player.toString()).not.toMatch(/XMLHttpRequest|import\(|setInterval|https?:/);
  // Files of the edition itself: the picture that is shared, and what is to be kept on the device.
  expect(player.toString().match(/fetch\(/g)).toHaveLength(2);
});

test.describe('the moon phases', () => {
  test('turn on by mouse, and begin again after the last', async ({ page }) => {
    await page.goto(url('marrowby-almanac'));
    const later = page.getByRole('button', { name: 'Later moon' });
    for (const name of ['Half moon', 'Waxing moon', 'Full moon', 'Waning moon', 'Young moon', 'Half moon']) {
      await later.click();
      await shows(page, name);
    }
    await page.getByRole('button', { name: 'Earlier moon' }).click();
    await shows(page, 'Young moon');
    await page.getByRole('button', { name: '4 of 5: Full moon' }).click();
    await shows(page, 'Full moon');
  });

  test('turn on by keys alone: on the words, and on the cards themselves', async ({ page }) => {
    await page.goto(url('marrowby-almanac'));
    await page.getByRole('button', { name: 'Later moon' }).focus();
    await page.keyboard.press('Enter');
    await shows(page, 'Half moon');
    await page.locator('.w').focus();
    for (const [key, name] of [
      ['ArrowRight', 'Waxing moon'],
      ['ArrowLeft', 'Half moon'],
      ['End', 'Waning moon'],
      ['Home', 'Young moon'],
    ] as const) {
      await page.keyboard.press(key);
      await shows(page, name);
    }
    await expect(page.getByRole('status')).toHaveText('1 of 5: Young moon');
  });

  test('turn on under a finger', async ({ browser }) => {
    const context = await browser.newContext({ hasTouch: true });
    const page = await context.newPage();
    await page.goto(url('marrowby-almanac'));
    await page.getByRole('button', { name: 'Later moon' }).tap();
    await shows(page, 'Half moon');
    const box = (await page.locator('.w').boundingBox())!;
    const touch = await context.newCDPSession(page);
    const at = (x: number) => ({ touchPoints: [{ x: box.x + x, y: box.y + 30 }] });
    await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', ...at(250) });
    await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', ...at(150) });
    await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', ...at(60) });
    await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
    await shows(page, 'Waxing moon');
    await context.close();
  });

  test('without a program all five can be read, and are found by pushing the strip', async ({ browser }) => {
    const context = await browser.newContext({ javaScriptEnabled: false });
    const page = await context.newPage();
    await page.goto(url('marrowby-almanac'));
    await expect(page.locator('.card')).toHaveCount(5);
    for (const name of ['Young moon', 'Full moon'])
      await expect(page.getByText(name, { exact: true }).first()).toHaveCSS('visibility', 'visible');
    await expect(page.getByText('The moon, of course.')).toHaveCSS('visibility', 'visible');
    await expect(page.getByRole('button')).toHaveCount(0);
    await context.close();
  });
});

test.describe('the veil over the answer', () => {
  const left = async (page: Page): Promise<number> => Number(await page.locator('.cloth').getAttribute('data-left'));

  test('has the flakes that were worked out; a stroke lifts a row of them for good', async ({ page }) => {
    await page.goto(url('marrowby-almanac'));
    await page.locator('[data-item=riddle-veil]').scrollIntoViewIfNeeded();
    expect(await left(page)).toBe(88);
    const box = (await page.locator('[data-item=riddle-veil]').boundingBox())!;
    await page.mouse.move(box.x - 5, box.y + 35);
    await page.mouse.move(box.x + 4, box.y + 60);
    await page.mouse.move(box.x + box.width - 2, box.y + 60);
    // 100 pt in flakes 10.5 pt apart: nine or ten in the row through the middle.
    await expect.poll(() => left(page)).toBeLessThanOrEqual(79);
    const after = await left(page);
    await page.mouse.move(box.x - 40, box.y - 40);
    await page.waitForTimeout(500);
    expect(await left(page)).toBe(after);
  });

  test('goes by itself once enough is lifted, by keys, and all at once by its button', async ({ page }) => {
    await page.goto(url('marrowby-almanac'));
    const veil = page.locator('[data-item=riddle-veil]');
    await veil.focus();
    for (let row = 0; row < 10; row++) {
      for (let column = 0; column < 9; column++) await page.keyboard.press(row % 2 ? 'ArrowLeft' : 'ArrowRight');
      await page.keyboard.press('ArrowDown');
    }
    await expect.poll(() => left(page)).toBe(0);
    await page.reload();
    await page.getByRole('button', { name: 'Show the answer' }).press('Enter');
    await expect.poll(() => left(page)).toBe(0);
    await expect(page.getByRole('button', { name: 'Show the answer' })).toHaveCount(0);
    await expect(page.getByText('The moon, of course.')).toHaveCSS('visibility', 'visible');
  });
});

test('the flyer’s boxes are ticked by mouse and keys, remember it, and are off to begin with', async ({ page }) => {
  await page.goto(url('open-dome-night'));
  const boxes = page.getByRole('checkbox');
  await expect(boxes).toHaveCount(6);
  for (const box of await boxes.all()) await expect(box).not.toBeChecked();
  await page.getByRole('checkbox', { name: 'A red lamp' }).check();
  await page.getByRole('checkbox', { name: 'Gloves' }).press('Space');
  await page.reload();
  await expect(page.getByRole('checkbox', { name: 'A red lamp' })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: 'Gloves' })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: 'A warm coat' })).not.toBeChecked();
});

/** Opens a document's Motion stage from the shelf. */
async function atMotion(page: Page, title: RegExp): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: title }).first().click();
  await page.getByRole('link', { name: 'Motion' }).click();
  // The page of the application comes before its address is another.
  await page.waitForURL(/\/motion/);
}

test.describe('the Motion stage', () => {
  test('tells cues as sentences; one is added, kept, and taken back', async ({ page }) => {
    await atMotion(page, /Marrowby Almanac/);
    const cues = page.getByRole('list', { name: 'Cues', exact: true });
    await expect(cues.getByRole('listitem')).toHaveText([
      /Page 6 · ‹ Earlier moonWhen the reader presses it → show the previous card of Moon phases/,
      /Later moon ›When the reader presses it → show the next card of Moon phases, begin again after the last/,
      /Page 15 · Ring the bellWhen the reader presses it → play The bell/,
    ]);
    await cues.getByRole('button', { name: /Later moon/ }).click();
    const mine = page.getByRole('list', { name: 'Cues of this item' });
    await expect(mine.getByRole('listitem')).toHaveCount(1);
    await page.getByLabel('What happens').fill('Print');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Add this step' }).click();
    await expect(mine).toContainText('begin again after the last');
    await expect(mine.locator('b')).toHaveText([/^show the next card/, 'print']);
    await expect(page.getByText('every change kept')).toBeVisible();
    await page.reload();
    await expect(mine.locator('b')).toHaveText([/^show the next card/, 'print']);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(mine.locator('b')).toHaveCount(1);
    expect((await new AxeBuilder(page).run()).filter((v) => v.impact === 'serious' || v.impact === 'critical')).toEqual([]);
  });

  test('a field is laid over what is drawn, named, and taken off; a veil lies over all', async ({ page }) => {
    await atMotion(page, /Open Dome Night/);
    const at = (item: string): Promise<unknown> => page.goto(`${page.url().split('?')[0]}?item=${item}`);
    await at('foot');
    await page.getByRole('button', { name: 'Lay a field on it' }).click();
    await expect(page.getByLabel('Kind of field')).toBeVisible();
    await page.getByLabel('Label').fill('Your name');
    await expect(page.getByRole('heading', { name: 'Field “Your name”' })).toBeVisible();
    // What is typed is taken back as one.
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByLabel('Label')).not.toHaveValue(/Your/);
    await page.getByRole('button', { name: 'Take it off the page' }).click();
    await expect(page.locator('[data-cue-of^=field-]')).toHaveCount(0);
    await at('picture');
    await page.getByRole('button', { name: 'Cover it with a veil' }).click();
    await expect(page.getByText('They overlap by 2 px')).toBeVisible();
    await expect(page.locator('[data-cue-of^=veil-]')).toHaveCount(1);
    await page.getByRole('button', { name: 'Take it off the page' }).click();
    await expect(page.locator('[data-cue-of^=veil-]')).toHaveCount(0);
  });

  test('a field is repeated in a grid: seen before it is there, made in one step, taken back in one', async ({ page }) => {
    await atMotion(page, /Open Dome Night/);
    await page.goto(`${page.url().split('?')[0]}?item=tick-6`);
    await page.getByRole('button', { name: 'Repeat in a grid' }).click();
    await page.getByLabel('Columns').fill('5');
    await expect(page.locator('.grid-preview text')).toHaveText(['1', '2', '3', '4', '5', '6', '7', '8', '9', '10']);
    await page.getByRole('button', { name: 'Make 10 of it' }).click();
    await expect(page.locator('.grid-preview')).toHaveCount(0);
    await expect(page.locator('[data-cue-of^="tick-6"]')).toHaveCount(10);
    await expect(page.getByRole('button', { name: 'Grid of 2 × 5' })).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('[data-cue-of^="tick-6"]')).toHaveCount(1);
  });

  test('several things take turns in one place, as one step; what is copied stands in another document', async ({ page }) => {
    await atMotion(page, /Open Dome Night/);
    const address = page.url().split('?')[0]!;
    await page.goto(`${address}?item=when&with=list,foot-text-frame`);
    await expect(page.getByRole('heading', { name: '3 things' })).toBeVisible();
    await page.getByRole('button', { name: 'Let them take turns in one place' }).click();
    await expect(page.getByRole('list', { name: 'Cards' }).getByRole('listitem')).toHaveCount(3);
    await page.getByRole('button', { name: 'Copy it' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('[data-cue-of^=switcher-]')).toHaveCount(0);

    await atMotion(page, /Five Worlds/);
    await page.getByText('Pages', { exact: true }).click();
    await page.getByRole('button', { name: 'Put the copy on page 1' }).click();
    await expect(page.locator('[data-cue-of^=switcher-]')).toHaveCount(1);
    await expect(page.getByText('every change kept')).toBeVisible();
    await page.reload();
    await expect(page.locator('[data-cue-of^=switcher-]')).toHaveCount(1);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('[data-cue-of^=switcher-]')).toHaveCount(0);
  });

  test('an address with a script is refused as a step; a delay and an animation are said in full', async ({ page }) => {
    await atMotion(page, /Open Dome Night/);
    await page.goto(`${page.url().split('?')[0]}?item=picture`);
    const choose = async (label: string, words: string): Promise<void> => {
      await page.getByLabel(label, { exact: true }).fill(words);
      await page.keyboard.press('Enter');
    };
    await choose('What happens', 'Open an address');
    await page.getByLabel('Address', { exact: true }).fill('javascript:alert(1)');
    await expect(page.getByRole('button', { name: 'Add this cue' })).toBeDisabled();
    await page.getByLabel('When', { exact: true }).click();
    await page.getByTitle('The page has been shown for a while').click();
    await choose('What happens', 'Grow');
    await page.getByLabel('Again and again').check();
    await page.getByRole('button', { name: 'Add this cue' }).click();
    await expect(page.getByRole('list', { name: 'Cues of this item' })).toContainText(
      /2 seconds after the page is shown → let grow .* in 0.6 seconds, again and again/,
    );
    await page.getByRole('button', { name: 'Undo' }).click();
  });

  test('a page is rehearsed in its place, by the player that readers get, and left with Escape', async ({ page }) => {
    await atMotion(page, /Open Dome Night/);
    await page.getByRole('button', { name: 'Rehearse page 1' }).click();
    const played = page.frameLocator('.rehearsal iframe');
    const box = played.getByRole('checkbox', { name: 'Gloves' });
    await expect(box).toBeVisible({ timeout: 60_000 });
    await box.press('Space');
    await expect(box).toBeChecked();
    await page.getByRole('button', { name: 'End the rehearsal' }).press('Escape');
    await expect(page.locator('.rehearsal')).toHaveCount(0);
  });

  test('a film that is none is told so; captions and a folder of files are taken', async ({ page }) => {
    await atMotion(page, /Open Dome Night/);
    await page.goto(`${page.url().split('?')[0]}?item=picture`);
    await page.getByRole('button', { name: 'Play a film or sound there' }).click();
    const files = page.getByRole('group', { name: 'Film or sound' }).locator('input[type=file]');
    await files.nth(0).setInputFiles({ name: 'dome.mp4', mimeType: 'video/mp4', buffer: Buffer.from('no film') });
    await expect(page.getByText('“dome.mp4” is no film, whatever its name says.')).toBeVisible();
    await files
      .nth(2)
      .setInputFiles({ name: 'said.vtt', mimeType: 'text/vtt', buffer: Buffer.from('WEBVTT\n\n00:00.000 --> 00:01.000\nA bell') });
    await expect(page.getByTitle('said.vtt')).toBeVisible();
    await page.getByRole('button', { name: 'Take it off the page' }).click();
  });

  test('transitions are given to all pages and taken off again', async ({ page }) => {
    await atMotion(page, /Five Worlds/);
    await page.getByText('Pages', { exact: true }).click();
    await expect(page.getByText('Pages come without a transition.')).toBeVisible();
    await page.getByRole('radio', { name: 'Blinds' }).click();
    await page.getByRole('button', { name: 'Give to all pages' }).click();
    await expect(page.getByText(/5 of 5 pages come by a transition. Page 1: blinds, 0.6 s/)).toBeVisible();
    await page.getByRole('button', { name: 'Take off all' }).click();
    await expect(page.getByText('Pages come without a transition.')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('Pages come without a transition.')).toBeVisible();
  });
});

test.describe('films, sounds and other editions inside pages', () => {
  const whole = `file://${join(out, 'whole', 'html', 'index.html')}`;
  test.beforeAll(() => {
    const almanac = join(out, 'marrowby-almanac.efolio');
    const args = ['convert', almanac, '--to', 'html', '--pages', '7, 13, 15', '--out', join(out, 'whole')];
    expect(spawnSync(process.execPath, ['dist/folio.mjs', ...args], { encoding: 'utf8' }).status).toBe(0);
  });

  test('the five panels come one after another, two rounds, in a frame that reaches nothing around it', async ({ page }) => {
    await page.clock.install();
    await page.goto(`${whole}#page-7`);
    const frame = page.frameLocator('iframe[src="embeds/five-worlds.html"]');
    await expect(frame.locator('.page')).toHaveCount(5);
    const [, inside] = page.frames();
    // Parts of a page while it is on its way: the next one is not waited for before this one has come.
    const seen = (): Promise<number> =>
      inside!.evaluate(() => Math.round((100 * document.scrollingElement!.scrollLeft) / innerWidth) / 100);
    expect(await inside!.evaluate(() => self.origin)).toBe('null');
    const order = [await seen()];
    for (let i = 0; i < 10; i++) {
      await inside!.evaluate(() => (document.documentElement.style.scrollBehavior = 'auto'));
      await page.clock.fastForward(5100);
      await expect.poll(seen, { timeout: 15_000 }).not.toBe(order.at(-1));
      await page.clock.runFor(1600);
      await expect.poll(seen, { timeout: 15_000 }).toBe((i + 1) % 5);
      order.push(await seen());
    }
    expect(order).toEqual([0, 1, 2, 3, 4, 0, 1, 2, 3, 4, 0]);
  });

  test('the bell rings by mouse and by keys; the film can be played, and its words be read', async ({ page }) => {
    await page.goto(`${whole}#page-15`);
    const bell = page.locator('audio');
    const ring = page.getByRole('button', { name: /Ring the bell/ });
    await ring.click();
    await expect.poll(() => bell.evaluate((a: HTMLAudioElement) => a.currentTime)).toBeGreaterThan(0);
    await bell.evaluate((a: HTMLAudioElement) => a.pause());
    await bell.evaluate((a: HTMLAudioElement) => (a.currentTime = 0));
    await ring.press('Enter');
    await expect.poll(() => bell.evaluate((a: HTMLAudioElement) => a.currentTime)).toBeGreaterThan(0);
    const film = page.locator('video');
    expect(await film.evaluate((v: HTMLVideoElement) => [v.duration, v.videoWidth, v.videoHeight])).toEqual([4.5, 480, 270]);
    await page.getByText('Transcript').first().focus();
    await page.keyboard.press('Enter');
    await expect(
      page.getByText('A small bell is struck three times.').or(page.getByText('Without sound: the stars turn')).first(),
    ).toBeVisible();
  });

  test('twelve nights are ticked, each by its own name', async ({ page }) => {
    await page.goto(`${whole}#page-13`);
    const boxes = page.getByRole('checkbox', { name: /^Clear night/ });
    await expect(boxes).toHaveCount(12);
    await page.getByRole('checkbox', { name: 'Clear night 12' }).check();
    await expect(page.locator('input:checked')).toHaveAttribute('name', 'clear-12');
  });
});

for (const id of ['marrowby-almanac', 'open-dome-night'])
  test(`axe-core finds nothing in ${id} while it plays; nothing is moved for those who want little motion`, async ({ browser }) => {
    const context = await browser.newContext({ reducedMotion: 'reduce' });
    const page = await context.newPage();
    await page.goto(url(id));
    expect((await new AxeBuilder(page).run()).filter((v) => v.impact === 'serious' || v.impact === 'critical')).toEqual([]);
    if (id === 'marrowby-almanac') {
      await page.getByRole('button', { name: 'Later moon' }).click();
      await shows(page, 'Half moon');
      expect(await page.evaluate(() => document.getAnimations().filter((a) => a.playState === 'running').length)).toBe(0);
    }
    await context.close();
  });
