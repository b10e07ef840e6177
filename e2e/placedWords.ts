// Writes where the typesetter put every word of the samples: the measure that a browser is held against.
import { writeFileSync } from 'node:fs';
import { samples } from '@elastic-folio/demo';
import { composedSpread, Composer, loadFonts } from '@elastic-folio/core/compose';
import { inEdition } from '@elastic-folio/core/language';
import { shippedFontSource } from '@elastic-folio/core/node';

const PX = 96 / 72;
const placed: Record<string, { item: string; words: { text: string; x: number }[]; ends: number[] }[]> = {};
const inAllLanguages = (await samples()).flatMap(({ folio }) => [
  { name: folio.head.id, folio },
  ...Object.keys(folio.editions).map((language) => ({ name: `${folio.head.id}.${language}`, folio: inEdition(folio, language) })),
]);
for (const { name, folio } of inAllLanguages) {
  const composition = new Composer(await loadFonts(folio.head, [await shippedFontSource()])).compose(folio);
  placed[name] = [...composition.frames.values()]
    .filter(
      (f) =>
        folio.head.layers[composedSpread(folio, composition, folio.spreads[f.spread]!).items[f.item]!.layer]!.visible &&
        f.lines.some((l) => l.runs.length),
    )
    .map((frame) => {
      const words: { text: string; x: number }[] = [];
      const ends: number[] = [];
      for (const line of frame.lines) {
        let inWord = false;
        let end: number | null = null;
        let before: (typeof line.runs)[number] | undefined;
        for (const run of line.runs) {
          // A box of its own in the web edition: after a tab, set apart, or scaled otherwise along the line.
          if (before && (run.joint !== 'flow' || run.horizontalScale !== before.horizontalScale)) {
            inWord = false;
            if (end !== null) ends.push(end);
          }
          before = run;
          for (const g of run.glyphs)
            for (const c of g.text) {
              // The hyphen of a divided word is shown by the style sheet: it is no text to be measured.
              if (c === '\u00AD') continue;
              if (/\s/.test(c)) inWord = false;
              else if (inWord) words[words.length - 1]!.text += c;
              else {
                words.push({ text: c, x: (line.x + run.x + g.x) * PX });
                inWord = true;
              }
              if (!/\s/.test(c)) end = (line.x + run.x + g.x + g.advance) * PX;
            }
        }
        if (end !== null) ends.push(end);
      }
      return { item: frame.item, words, ends };
    });
}
writeFileSync(process.argv[2]!, JSON.stringify(placed));
