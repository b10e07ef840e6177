import type { Corrections } from '../../edit/correction.ts';
import type { Folio } from '../../folio/folio.ts';
import { plainText, readText } from '../../folio/text.ts';
import { textSign } from '../../ports/textSign.ts';
import { changesBetween, paragraphsOf, refuseOther, ToldChanges } from './corrected.ts';
import { pairTexts } from './pairTexts.ts';
import { saidChanges } from './saidChanges.ts';
import type { SlideTexts, WrittenText } from './slideTexts.ts';

/** What colleagues have changed in slides that were written from a document; `read`: their texts, whatever the format. */
export function slideCorrections(folio: Folio, read: SlideTexts): Corrections {
  refuseOther(folio, read.document);
  const pairs = new Pairs();
  const left = new Map<string, WrittenText[]>();
  for (const { slide, shape, texts } of read.written) {
    const now = read.slides.get(slide)?.get(shape);
    if (!now) {
      left.set(slide, [...(left.get(slide) ?? []), ...texts]);
      continue;
    }
    read.slides.get(slide)!.delete(shape);
    pairs.add(texts, now, true);
  }
  // Boxes and slides that a program has numbered anew, or that were copied: their texts are found by what they say.
  const lost: WrittenText[] = [];
  for (const [slide, texts] of left) {
    const boxes = read.slides.get(slide);
    if (boxes) pairs.add(texts, takeAll(boxes), false, lost);
    else for (const one of texts) lost.push(one);
  }
  const rest = [...read.slides.values()].flatMap(takeAll);
  pairs.add(lost, rest, false);
  return toldBy(folio, pairs);
}

const takeAll = (boxes: Map<string, string[]>): string[] => {
  const all = [...boxes].flatMap(([, texts]) => texts);
  boxes.clear();
  return all;
};

/** What became of the texts of boxes. */
class Pairs {
  readonly found: { written: WrittenText; now: string }[] = [];
  readonly gone: WrittenText[] = [];
  readonly added: { after: string | null; text: string }[] = [];

  /** `lost`: where texts go that are not there, if they may be elsewhere. */
  add(texts: readonly WrittenText[], now: readonly string[], sure: boolean, lost: WrittenText[] = this.gone): void {
    const written = texts.filter((t) => t.said.trim());
    const seen = now.filter((t) => t.trim());
    let after: string | null = null;
    for (const pair of pairTexts(
      written.map((t) => t.said),
      seen,
      sure,
    )) {
      const text = pair.written === null ? null : written[pair.written]!;
      if (text && pair.now !== null) this.found.push({ written: text, now: pair.now });
      else if (text) lost.push(text);
      else if (pair.now !== null) this.added.push({ after, text: pair.now.trim() });
      if (text) after = text.id;
    }
  }
}

/** Parts of a paragraph in several boxes are told as one; of one that stands on many slides, the first that is another. */
function toldBy(folio: Folio, { found, gone, added }: Pairs): Corrections {
  const at = paragraphsOf(folio);
  const out: Corrections = { corrections: [], added: [...added], gone: [] };
  const changes = new ToldChanges(at);
  const there = new Set(found.map((f) => f.written.id));
  for (const { written, now } of found) {
    const ours = at.get(written.id);
    if (!ours || written.said === now) continue;
    const whole = plainText(ours.paragraph.content);
    const changedHere = textSign(readText(ours.paragraph)) !== written.text;
    const part = whole.slice(written.from, written.to);
    const isWhole = written.from === 0 && (changedHere || written.to === whole.length);
    const told = saidChanges(isWhole ? whole : part, written.said, now) ?? (isWhole ? changesBetween(whole, now) : null);
    if (!told) {
      // Where in the paragraph these words stand is not known any more.
      out.added.push({ after: written.id, text: now.trim() });
      continue;
    }
    const from = isWhole ? 0 : written.from;
    const moved = told.changes.map((c) => ({ ...c, from: c.from + from, to: c.to + from }));
    changes.add(written.id, { changes: moved, keepsObjects: told.keepsObjects, changedHere });
  }
  for (const one of changes.list()) out.corrections.push(one);
  for (const id of new Set(gone.map((g) => g.id))) {
    const ours = at.get(id);
    if (ours && !there.has(id)) out.gone.push({ paragraph: id, text: readText(ours.paragraph) });
  }
  return out;
}
