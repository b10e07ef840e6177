import type { Corrections } from '../../edit/correction.ts';
import type { Folio } from '../../folio/folio.ts';
import { nameInXml } from '../../folio/ids.ts';
import { OBJECT, plainText } from '../../folio/text.ts';
import { unlikeness } from '../../alignment/likeness.ts';
import { AGAIN } from '../../ports/standIns.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import { paragraphsOf, refuseOther, toldByParts } from './corrected.ts';
import { odtTexts } from './odtTexts.ts';

/** What colleagues have changed in an open text document that was written from a document. */
export async function odtCorrections(folio: Folio, file: string, limits: ArchiveLimits): Promise<Corrections> {
  const read = await odtTexts(file, limits);
  refuseOther(folio, read.document);
  const at = new Map([...paragraphsOf(folio)].map(([id, p]) => [nameInXml(id), p]));
  const out: Corrections = { corrections: [], added: [], gone: [] };
  const there = new Map<string, string>();
  let last: string | null = null;
  /** Which paragraph of the document one of the file is, or is a part of. */
  const ourOf = (id: string) => at.get(read.signs.get(id)?.part?.paragraph ?? id);
  for (const { id, text } of read.texts) {
    if (id?.startsWith(AGAIN)) continue;
    if (id !== null && ourOf(id) && !there.has(id)) {
      there.set((last = id), text);
      continue;
    }
    const words = text.replaceAll(OBJECT, '').trim();
    if (!words) continue;
    const before = last === null ? null : { text: there.get(last)!, ours: plainText(ourOf(last)!.paragraph.content) };
    // What follows a paragraph and makes it more like ours has been its end: somebody has divided it.
    const whole = before && `${before.text}\n${text}`;
    if (before && whole !== null && unlikeness(before.ours, whole) < unlikeness(before.ours, before.text)) there.set(last!, whole);
    else out.added.push({ after: last === null ? null : ourOf(last)!.paragraph.id, text: words });
  }
  toldByParts(
    out,
    paragraphsOf(folio),
    [...new Set([...read.signs.keys(), ...there.keys()])].flatMap((id) => {
      const ours = ourOf(id);
      // Of what no sign is left nothing is known: it counts as another here.
      const { text: sign, part } = read.signs.get(id) ?? { text: '', part: null };
      return ours ? [{ id: ours.paragraph.id, sign, part, words: there.get(id) }] : [];
    }),
  );
  return out;
}
