import { pointsOfEmu } from '../../packages/emu.ts';
import type { Rect } from '../../folio/geometry.ts';
import { child, childrenOf, within } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { openSlides, placeholderOf, said, thingsOf } from '../../ledger/office/openSlides.ts';
import type { OpenDeck, OpenSlide } from '../../ledger/office/openSlides.ts';
import { pictureHtml, placeStyle, shapeSvg } from './redrawShape.ts';
import { escape } from './redrawText.ts';
import { picturesOf } from './officeImages.ts';
import { colourIn, drawnPage } from '../drawnPage.ts';

/** A typeface that is installed where a file is looked at, by the names that the file may call it. */
export interface InstalledFace {
  family: string;
  bold: boolean;
  italic: boolean;
  bytes: Uint8Array;
}

/**
 * A slide drawn from the bytes of its deck alone, as a page of HTML: what a colleague’s program will show, as far as a browser can.
 * `decks`: the files of a result; `page`: which page of all of them, counted from 1, where a slide may show several; `beside`: pictures in a folder next to them.
 */
export async function redrawSlide(
  decks: readonly Uint8Array[],
  beside: (path: string) => Promise<Uint8Array | undefined>,
  page: number,
  faces: readonly InstalledFace[] = [],
): Promise<string> {
  let before = 0;
  for (const bytes of decks) {
    const deck = await openSlides(bytes);
    const slide = deck.slides.find((s) => {
      before += s.pages;
      return page <= before;
    });
    if (slide) {
      const drawn = await drawSlide(deck, slide, beside);
      return drawnPage(drawn, `${facesIn(drawn, faces)}${CSS}`);
    }
  }
  return '<!doctype html><html><body></body></html>';
}

const CSS = `html{background:#fff}body{margin:0}p{margin:0;white-space:pre-wrap;tab-size:3em}table{border-collapse:collapse;width:100%;height:100%}td{vertical-align:top}a{color:inherit}`;

/** Those that a drawing asks for. */
const facesIn = (drawn: string, faces: readonly InstalledFace[]): string =>
  faces
    .filter(({ family }) => drawn.includes(`font-family:'${family}'`))
    .map(({ family, bold, italic, bytes }) => {
      const src = `url(data:font/ttf;base64,${Buffer.from(bytes).toString('base64')})`;
      return `@font-face{font-family:'${family}';font-weight:${bold ? 700 : 400};font-style:${italic ? 'italic' : 'normal'};src:${src}}`;
    })
    .join('\n');

async function drawSlide(deck: OpenDeck, slide: OpenSlide, beside: (path: string) => Promise<Uint8Array | undefined>): Promise<string> {
  const parts = [
    { things: thingsOf(slide.layout.root).filter(({ node }) => !placeholderOf(node)), path: slide.layout.path },
    { things: thingsOf(slide.root, slide.layout.root), path: slide.path },
  ];
  let out = '';
  for (const { things, path } of parts) {
    const pictures = await picturesOf(deck, beside, path);
    for (const { node, own } of things) out += `${drawThing(node, own, pictures, slide)}\n`;
  }
  const ground = child(child(child(slide.root, 'p:cSld'), 'p:bg'), 'p:bgPr');
  const whole = { x: 0, y: 0, ...deck.size };
  const paper = `position:relative;overflow:hidden;width:${deck.size.width}pt;height:${deck.size.height}pt`;
  return `<section style="${paper}">${ground ? shapeSvg(ground, whole) : ''}${out}</section>`;
}

function drawThing(node: Node, own: Rect, pictures: ReadonlyMap<string, string>, slide: OpenSlide): string {
  const spPr = child(node, 'p:spPr');
  const place = placeStyle(spPr, own);
  if (node.name === 'p:graphicFrame') {
    const tbl = [...within(node)].find((n) => n.name === 'a:tbl');
    return tbl ? `<div style="${place}">${tableHtml(tbl, slide)}</div>` : '';
  }
  const fill = child(node, 'p:blipFill');
  const blip = child(fill, 'a:blip')?.attributes;
  const src = pictures.get(blip?.['r:embed'] ?? blip?.['r:link'] ?? '');
  const picture = src ? pictureHtml(src, said(node)?.attributes['descr'] ?? '', spPr, fill, own) : '';
  return `<div style="${place}">${picture}${shapeSvg(spPr, own)}${bodyHtml(child(node, 'p:txBody'), slide)}</div>`;
}

const ANCHORED: Record<string, string> = { t: 'start', ctr: 'center', b: 'end' };

function bodyHtml(body: Node | undefined, slide: OpenSlide): string {
  if (!body) return '';
  const { lIns, tIns, rIns, bIns, anchor = 't', numCol = '1', spcCol } = child(body, 'a:bodyPr')?.attributes ?? {};
  const inset = [tIns, rIns, bIns, lIns].map((n) => `${pointsOfEmu(n)}pt`).join(' ');
  const text = childrenOf(body, 'a:p')
    .map((p, i) => paragraphHtml(p, i, slide))
    .join('\n');
  const columns = Number(numCol) > 1 ? `height:100%;column-count:${numCol};column-gap:${pointsOfEmu(spcCol)}pt;column-fill:auto` : '';
  const stands = Number(numCol) > 1 ? '' : `;display:grid;align-content:${ANCHORED[anchor] ?? 'start'}`;
  return `<div style="position:absolute;inset:0;box-sizing:border-box;padding:${inset}${stands}"><div style="min-width:0;${columns}">${text}</div></div>`;
}

const ALIGNED: Record<string, string> = { l: 'left', r: 'right', ctr: 'center', just: 'justify', dist: 'justify' };
const spaced = (pPr: Node | undefined, name: string): number => Number(child(child(pPr, name), 'a:spcPts')?.attributes['val'] ?? 0) / 100;

function paragraphHtml(p: Node, at: number, slide: OpenSlide): string {
  const pPr = child(p, 'a:pPr');
  const { marL, marR, indent, algn = 'l', rtl } = pPr?.attributes ?? {};
  const pitch = spaced(pPr, 'a:lnSpc');
  const style = [
    `text-align:${ALIGNED[algn] ?? 'left'}`,
    `margin:${at === 0 ? 0 : spaced(pPr, 'a:spcBef')}pt ${pointsOfEmu(marR)}pt ${spaced(pPr, 'a:spcAft')}pt ${pointsOfEmu(marL)}pt`,
    `text-indent:${pointsOfEmu(indent)}pt`,
    ...(pitch ? [`line-height:${pitch}pt`] : []),
    ...(rtl === '1' ? ['direction:rtl'] : []),
  ];
  const sign = child(pPr, 'a:buChar')?.attributes['char'];
  const counted = child(pPr, 'a:buAutoNum')?.attributes['startAt'];
  const label = sign ?? (child(pPr, 'a:buAutoNum') ? `${counted ?? at + 1}.` : undefined);
  const width = pointsOfEmu(indent) < 0 ? -pointsOfEmu(indent) : 0;
  const before = label === undefined ? '' : `<span style="display:inline-block;min-width:${width}pt;text-indent:0">${escape(label)}</span>`;
  const end = child(p, 'a:endParaRPr');
  const inside = p.children
    .map((n) => (n.name === 'a:br' ? '<br>' : n.name === 'a:r' || n.name === 'a:fld' ? runHtml(n, slide) : ''))
    .join('');
  return `<p style="${style.join(';')}"><span style="${runStyle(end)}">${before}${inside || '&#8203;'}</span></p>`;
}

function runHtml(r: Node, slide: OpenSlide): string {
  const text = r.attributes['type'] === 'slidenum' ? String(slide.number) : (child(r, 'a:t')?.text ?? '');
  return `<span style="${runStyle(child(r, 'a:rPr'))}">${escape(text)}</span>`;
}

function runStyle(rPr: Node | undefined): string {
  if (!rPr) return '';
  const a = rPr.attributes;
  const raised = Number(a['baseline'] ?? 0);
  const size = (Number(a['sz'] ?? 1800) / 100) * (raised ? 0.66 : 1);
  const colour = colourIn(child(child(rPr, 'a:solidFill'), 'a:srgbClr')?.attributes['val']);
  const lines = [a['u'] === 'sng' && 'underline', a['strike'] === 'sngStrike' && 'line-through'].filter(Boolean).join(' ');
  return [
    `font-family:'${escape(child(rPr, 'a:latin')?.attributes['typeface'] ?? '').replace(/'/g, '')}',sans-serif`,
    `font-size:${size}pt`,
    `font-weight:${a['b'] === '1' ? 700 : 400}`,
    `font-style:${a['i'] === '1' ? 'italic' : 'normal'}`,
    `letter-spacing:${Number(a['spc'] ?? 0) / 100}pt`,
    ...(raised ? [`vertical-align:${raised > 0 ? 'super' : 'sub'}`, 'line-height:0'] : []),
    ...(a['cap'] === 'all' ? ['text-transform:uppercase'] : a['cap'] === 'small' ? ['font-variant:small-caps'] : []),
    ...(lines ? [`text-decoration:${lines}`] : []),
    ...(colour === undefined ? [] : [`color:#${colour}`]),
  ].join(';');
}

function tableHtml(tbl: Node, slide: OpenSlide): string {
  const widths = childrenOf(child(tbl, 'a:tblGrid'), 'a:gridCol').map((c) => pointsOfEmu(c.attributes['w']));
  const rows = childrenOf(tbl, 'a:tr').map((tr) => {
    const cells = childrenOf(tr, 'a:tc').map((tc) => {
      const { rowSpan, gridSpan, hMerge, vMerge } = tc.attributes;
      if (hMerge === '1' || vMerge === '1') return '';
      const tcPr = child(tc, 'a:tcPr');
      const { marL, marR, marT, marB, anchor } = tcPr?.attributes ?? {};
      const fill = colourIn(child(child(tcPr, 'a:solidFill'), 'a:srgbClr')?.attributes['val']);
      const line = (side: string, css: string): string => {
        const ln = child(tcPr, side);
        const colour = colourIn(child(child(ln, 'a:solidFill'), 'a:srgbClr')?.attributes['val']);
        return colour === undefined ? '' : `border-${css}:${pointsOfEmu(ln?.attributes['w'])}pt solid #${colour};`;
      };
      const look = `padding:${[marT, marR, marB, marL].map((n) => `${pointsOfEmu(n)}pt`).join(' ')};${fill ? `background:#${fill};` : ''}${line('a:lnT', 'top')}${line('a:lnR', 'right')}${line('a:lnB', 'bottom')}${line('a:lnL', 'left')}vertical-align:${anchor === 'ctr' ? 'middle' : anchor === 'b' ? 'bottom' : 'top'}`;
      const text = childrenOf(child(tc, 'a:txBody'), 'a:p')
        .map((p, i) => paragraphHtml(p, i, slide))
        .join('');
      return `<td rowspan="${Number(rowSpan ?? 1)}" colspan="${Number(gridSpan ?? 1)}" style="${look}">${text}</td>`;
    });
    return `<tr style="height:${pointsOfEmu(tr.attributes['h'])}pt">${cells.join('')}</tr>`;
  });
  return `<table><colgroup>${widths.map((w) => `<col style="width:${w}pt">`).join('')}</colgroup>${rows.join('')}</table>`;
}
