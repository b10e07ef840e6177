import { child } from '../../packages/officeParts.ts';
import { openWord } from '../../ledger/office/openWord.ts';
import type { OpenWord } from '../../ledger/office/openWord.ts';
import { drawPage, isLaidOut } from './redrawPage.ts';
import { picturesOf } from './officeImages.ts';
import { escape, points, TextDrawing } from './redrawText.ts';
import { wordFontFiles } from '../../ledger/office/wordFontFiles.ts';
import { drawnPage } from '../drawnPage.ts';

/**
 * A text document drawn from its bytes alone, as a page of HTML: what a colleague’s program will show, as far as a browser can; its
 * own line breaks and pages come from there. Paragraphs have the ids that the document lists for them. `beside`: pictures in a
 * folder next to it; `page`: which, counted from 1, where it is laid out page by page.
 */
export async function redrawWord(
  bytes: Uint8Array,
  beside: (path: string) => Promise<Uint8Array | undefined>,
  page: number,
): Promise<string> {
  const word = await openWord(bytes);
  const pictures = await picturesOf(word, beside);
  const drawing = new TextDrawing(word, pictures, idsOf(word));
  const faces = (await wordFontFiles(word, word.related('fontTable'))).map(
    (f) =>
      `@font-face{font-family:"${escape(f.family)}";font-weight:${f.weight};font-style:${f.style};src:url(data:font/ttf;base64,${Buffer.from(f.bytes).toString('base64')})}`,
  );
  const body = child(word.document, 'w:body');
  const css = `${faces.join('\n')}${CSS}`;
  if (body && isLaidOut(body)) return drawnPage(await drawPage(word, body, page, drawing, beside), css);
  const section = child(body, 'w:sectPr');
  const [paper, margins] = [child(section, 'w:pgSz')?.attributes ?? {}, child(section, 'w:pgMar')?.attributes ?? {}];
  const sides = ['w:top', 'w:right', 'w:bottom', 'w:left'].map((side) => `${points(margins[side])}pt`).join(' ');
  const sheet = `body{box-sizing:border-box;width:${points(paper['w:w'])}pt;padding:${sides}}`;
  return drawnPage(`${body ? drawing.sections(body) : ''}${drawing.notes()}`, css + sheet);
}

const CSS = `
html{background:#fff}body{margin:0;overflow-wrap:break-word}
p{margin:0;white-space:pre-wrap;tab-size:3em}table{border-collapse:collapse;max-width:100%}td{vertical-align:top}
img{max-width:100%;height:auto}a{color:inherit}.contents{margin-bottom:2em}.contents a{text-decoration:none}.note{font-size:.9em;margin-top:.5em}
.initial{float:left;margin-right:3pt!important;position:relative;top:.08em}.float{float:right;margin:0 0 .5em 1em;max-width:45%}`;

/** Bookmarks → what they are called here: paragraphs and pages of the document, by the list that the file carries. */
function idsOf(word: OpenWord): Map<string, string> {
  const out = new Map<string, string>();
  for (const { target, type } of word.relations(word.main).values()) {
    if (type !== 'customXml') continue;
    const list = word.part(target);
    for (const p of list?.children ?? [])
      if (p.attributes['bookmark'] !== undefined)
        out.set(p.attributes['bookmark'], `${p.name.endsWith('page') ? 'page' : 't'}-${p.attributes['id'] ?? ''}`);
  }
  return out;
}
