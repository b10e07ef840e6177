// Writes where the typesetter put every word of the samples: the measure that a browser is held against.
import { writeFileSync } from 'node:fs';
import { samples } from '@elastic-folio/demo';
import { Composer, loadFonts } from '@elastic-folio/core/compose';
import { shippedFontSource } from '@elastic-folio/core/node';

const PX = 96 / 72;
const placed: Record<string, { item: string; words: { text: string; x: number }[]; ends: number[] }[]> = {};
for (const { folio } of await samples()) {
  const composition = new Composer(await loadFonts(folio.head, [await shippedFontSource()])).compose(folio);
  placed[folio.head.id] = [...composition.frames.values()]
    .filter((f) => folio.head.layers[folio.spreads[f.spread]!.items[f.item]!.layer]!.visible && f.lines.some((l) => l.runs.length))
    .map((frame) => {
      const words: { text: string; x: number }[] = [];
      const ends: number[] = [];
      for (const line of frame.lines) {
        let inWord = false;
        line.runs.forEach((run, r) => {
          const before = line.runs[r - 1];
          if (before && Math.abs(before.x + before.width - run.x) > 0.01) {
            inWord = false;
            ends.push((line.x + before.x + before.width) * PX);
          }
          for (const g of run.glyphs)
            for (const c of g.text) {
              if (/\s/.test(c)) inWord = false;
              else if (inWord) words[words.length - 1]!.text += c;
              else {
                words.push({ text: c, x: (line.x + run.x + g.x) * PX });
                inWord = true;
              }
            }
        });
        const last = line.runs[line.runs.length - 1];
        if (last) ends.push((line.x + last.x + last.width) * PX);
      }
      return { item: frame.item, words, ends };
    });
}
writeFileSync(process.argv[2]!, JSON.stringify(placed));
