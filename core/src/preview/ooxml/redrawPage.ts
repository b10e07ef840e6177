import type { Rect } from '../../folio/geometry.ts';
import { anchorBox, anchorsIn } from '../../packages/drawingmlShape.ts';
import { child, within } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import type { OpenWord } from '../../ledger/office/openWord.ts';
import { pictureHtml, placeStyle, shapeSvg } from './redrawShape.ts';
import { points } from './redrawText.ts';
import type { TextDrawing } from './redrawText.ts';
import { picturesOf } from './officeImages.ts';
import { wordPages } from '../../ledger/office/wordPages.ts';
import type { WordSection } from '../../ledger/office/wordPages.ts';

/** Whether a document has its text in placed boxes. */
export const isLaidOut = (body: Node): boolean =>
  body.children.some((n) => anchorsIn(n).some((a) => [...within(a)].some((x) => x.name === 'wps:txbx')));

/** A page of placed boxes: outlines, pictures and text, from back to front. Text that goes on in another box is moved up there by the boxes before it. */
export async function drawPage(
  word: OpenWord,
  body: Node,
  number: number,
  text: TextDrawing,
  beside: (path: string) => Promise<Uint8Array | undefined>,
): Promise<string> {
  const sections = wordPages(body);
  const here = sections[number - 1];
  if (!here) return '';
  const size = child(here.section, 'w:pgSz')?.attributes ?? {};
  const header = child(here.section, 'w:headerReference')?.attributes['r:id'];
  const headerPath = header === undefined ? undefined : word.relations(word.main).get(header)?.target;
  const parts = [
    ...(headerPath === undefined || !word.part(headerPath) ? [] : [{ path: headerPath, nodes: word.part(headerPath)!.children }]),
    { path: word.main, nodes: here.nodes },
  ];
  text.pageNumber = here.number;
  const chains = chainsIn(sections);
  const drawn: { z: number; html: string }[] = [];
  for (const { path, nodes } of parts) {
    const pictures = await picturesOf(word, beside, path);
    for (const anchor of nodes.flatMap(anchorsIn)) {
      const own = anchorBox(anchor);
      if (own) drawn.push({ z: Number(anchor.attributes['relativeHeight'] ?? 0), html: drawAnchor(anchor, own, pictures, chains, text) });
    }
  }
  const inside = drawn.sort((a, b) => a.z - b.z).map((d) => d.html);
  const paper = `position:relative;overflow:hidden;width:${points(size['w:w'])}pt;height:${points(size['w:h'])}pt`;
  return `<section style="${paper}">${inside.join('\n')}</section>`;
}

interface Chain {
  content: Node | undefined;
  /** Heights of its boxes, in points, the first of them first. */
  heights: number[];
}
function chainsIn(sections: readonly WordSection[]): Map<string, Chain> {
  const out = new Map<string, Chain>();
  const chain = (id: string): Chain => {
    let known = out.get(id);
    if (!known) out.set(id, (known = { content: undefined, heights: [] }));
    return known;
  };
  for (const anchor of sections.flatMap((s) => s.nodes.flatMap(anchorsIn)))
    for (const n of within(anchor)) {
      const { id, seq } = n.attributes;
      if (id === undefined || (n.name !== 'wps:txbx' && n.name !== 'wps:linkedTxbx')) continue;
      chain(id).heights[Number(seq ?? 0)] = anchorBox(anchor)?.height ?? 0;
      if (n.name === 'wps:txbx') chain(id).content = child(n, 'w:txbxContent');
    }
  return out;
}

function drawAnchor(
  anchor: Node,
  own: Rect,
  pictures: ReadonlyMap<string, string>,
  chains: ReadonlyMap<string, Chain>,
  text: TextDrawing,
): string {
  const all = [...within(anchor)];
  const spPr = all.find((n) => n.name === 'wps:spPr' || n.name === 'pic:spPr');
  const place = placeStyle(spPr, own);
  const boxed = all.find((n) => n.name === 'wps:txbx' || n.name === 'wps:linkedTxbx');
  if (boxed) return textBox(boxed, place, all.find((n) => n.name === 'wps:bodyPr')?.attributes['anchor'] ?? 't', chains, text);
  const fill = all.find((n) => n.name === 'pic:blipFill');
  const blip = child(fill, 'a:blip')?.attributes;
  const src = pictures.get(blip?.['r:embed'] ?? blip?.['r:link'] ?? '');
  const outline = shapeSvg(spPr, own);
  const alt = child(anchor, 'wp:docPr')?.attributes['descr'] ?? '';
  return `<div style="${place}">${src ? pictureHtml(src, alt, spPr, fill, own) : ''}${outline}</div>`;
}

const ALIGNED: Record<string, string> = { t: 'start', ctr: 'center', b: 'end' };

function textBox(boxed: Node, place: string, anchor: string, chains: ReadonlyMap<string, Chain>, text: TextDrawing): string {
  const { id, seq } = boxed.attributes;
  const chain = id === undefined ? undefined : chains.get(id);
  const content = chain ? chain.content : child(boxed, 'w:txbxContent');
  if (!content) return '';
  const before = (chain?.heights ?? []).slice(0, Number(seq ?? 0)).reduce((a, b) => a + b, 0);
  const inside = `<div style="margin-top:${-before}pt">${text.blocks(content)}</div>`;
  const flows = chain ? 'overflow:hidden' : `display:grid;align-content:${ALIGNED[anchor] ?? 'start'}`;
  return `<div style="${place};${flows}">${inside}</div>`;
}
