import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

/** Words of one frame and where each begins, and where stretches of letters end, in px from the frame's left side. */
interface Placed {
  item: string;
  words: { text: string; x: number }[];
  ends: number[];
}

/** Writes where the typesetter put every word of the samples into a file. */
export function writePlaced(file: string): void {
  const placed = spawnSync(process.execPath, ['scripts/run.mjs', 'e2e/placedWords.ts', file], { encoding: 'utf8' });
  expect([placed.status, placed.stderr]).toEqual([0, '']);
}

export const placedIn = (file: string, sample: string): Placed[] =>
  (JSON.parse(readFileSync(file, 'utf8')) as Record<string, Placed[]>)[sample]!;

/** Where the browser shows each word's first letter and each stretch's last, in px of its own page, turned frames set upright. */
export const seen = (page: Page): Promise<Placed[]> =>
  page.evaluate(() => {
    for (const item of document.querySelectorAll<HTMLElement>('.i')) item.style.transform = 'none';
    return [...document.querySelectorAll<HTMLElement>('.i[data-item]')].flatMap((item) => {
      const lines = [...item.querySelectorAll<HTMLElement>('.l')];
      if (!lines.length) return [];
      const left = item.getBoundingClientRect().left;
      const words: { text: string; x: number }[] = [];
      const ends: number[] = [];
      for (const line of lines) {
        const walker = document.createTreeWalker(line, NodeFilter.SHOW_TEXT);
        let inWord = false;
        let end = 0;
        for (let node = walker.nextNode(); node; node = walker.nextNode()) {
          const text = node.textContent ?? '';
          for (let i = 0; i < text.length; i++) {
            const space = /\s/.test(text[i]!);
            const range = document.createRange();
            range.setStart(node, i);
            range.setEnd(node, i + 1);
            const rect = range.getClientRects()[0];
            if (!space && rect) {
              if (!inWord) words.push({ text: '', x: rect.left - left });
              words[words.length - 1]!.text += text[i];
              end = rect.right - left;
            }
            inWord = !space;
          }
        }
        ends.push(end);
      }
      return [{ item: item.dataset['item']!, words, ends }];
    });
  });

/**
 * How far, at worst, words and ends of lines stand from where the typesetter put them, and how many words were looked at.
 * A text between whose paragraphs something else is read stands in several boxes in one place.
 */
export function farthest(expected: readonly Placed[], boxes: readonly Placed[]): { count: number; worst: number; where: string } {
  const shown = new Map<string, Placed>();
  for (const { item, words, ends } of boxes) {
    const before = shown.get(item);
    shown.set(item, { item, words: [...(before?.words ?? []), ...words], ends: [...(before?.ends ?? []), ...ends] });
  }
  const out = { count: 0, worst: 0, where: '' };
  const measure = (off: number, what: string): void => {
    if (off > out.worst) [out.worst, out.where] = [off, what];
  };
  for (const frame of expected) {
    const got = shown.get(frame.item);
    expect([frame.item, got?.words.map((w) => w.text).join(' ')]).toEqual([frame.item, frame.words.map((w) => w.text).join(' ')]);
    frame.words.forEach((w, i) => measure(Math.abs(w.x - got!.words[i]!.x), w.text));
    frame.ends.forEach((x, i) => measure(Math.abs(x - got!.ends[i]!), `the end of stretch ${i} of ${frame.item}`));
    out.count += frame.words.length;
  }
  return out;
}
