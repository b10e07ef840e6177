import type { Corrections } from '../../edit/correction.ts';
import type { Folio } from '../../folio/folio.ts';
import { nameInXml } from '../../folio/ids.ts';
import { OBJECT, plainText, readText } from '../../folio/text.ts';
import { unlikeness } from '../../ledger/align.ts';
import { textSign } from '../../ports/textSign.ts';
import type { ArchiveLimits } from '../limits.ts';
import { changesBetween, correctionOf, paragraphsOf, refuseOther } from './corrected.ts';
import { odtTexts } from './odtTexts.ts';

/** What colleagues have changed in an open text document that was written from a document. */
export async function odtCorrections(folio: Folio, file: string, limits: ArchiveLimits): Promise<Corrections> {
  const read = await odtTexts(file, limits);
  refuseOther(folio, read.document);
  const at = new Map([...paragraphsOf(folio)].map(([id, p]) => [nameInXml(id), p]));
  const out: Corrections = { corrections: [], added: [], gone: [] };
  const there = new Map<string, string>();
  let last: string | null = null;
  for (const { id, text } of read.texts) {
    if (id !== null && at.has(id) && !there.has(id)) {
      there.set((last = id), text);
      continue;
    }
    const words = text.replaceAll(OBJECT, '').trim();
    if (!words) continue;
    const before = last === null ? null : { text: there.get(last)!, ours: plainText(at.get(last)!.paragraph.content) };
    // What follows a paragraph and makes it more like ours has been its end: somebody has divided it.
    const whole = before && `${before.text}\n${text}`;
    if (before && whole !== null && unlikeness(before.ours, whole) < unlikeness(before.ours, before.text)) there.set(last!, whole);
    else out.added.push({ after: last === null ? null : at.get(last)!.paragraph.id, text: words });
  }
  for (const [id, theirs] of there) {
    const { story, paragraph } = at.get(id)!;
    const told = changesBetween(plainText(paragraph.content), theirs);
    const changedHere = textSign(readText(paragraph)) !== read.signs.get(id);
    if (told.changes.length) out.corrections.push(correctionOf(story, paragraph, { ...told, changedHere }));
  }
  for (const id of read.signs.keys()) {
    const ours = at.get(id);
    if (ours && !there.has(id) && plainText(ours.paragraph.content).trim())
      out.gone.push({ paragraph: ours.paragraph.id, text: readText(ours.paragraph) });
  }
  return out;
}
