import { pagesNamed } from '../../folio/joinedSpreads.ts';
import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { openPackage } from '../../ledger/odf/openPackage.ts';
import { chainsIn, openTextPages } from '../../ledger/odf/openTextPages.ts';
import type { OpenTextPage } from '../../ledger/odf/openTextPages.ts';
import type { OpenPackage } from '../../ledger/odf/openPackage.ts';
import { OdfStyles, pointsOf } from '../../ledger/odf/odfStyles.ts';
import { SlideDrawing } from './redrawOdfShapes.ts';
import type { Shown } from './redrawOdfShapes.ts';
import { OdfTextDrawing } from './redrawOdfText.ts';
import { drawnPage } from '../drawnPage.ts';

/** A typeface that is installed where a file is looked at. */
interface OdfFace {
  family: string;
  weight: number;
  style: 'normal' | 'italic';
  bytes: Uint8Array;
}

/** What stands on a master page for places that its pages fill, and is seen on none (19.391, 19.393). */
const isPlace = ({ attributes: a }: Node): boolean =>
  a['presentation:placeholder'] === 'true' || (a['presentation:class'] !== undefined && a['presentation:class'] !== 'page-number');

interface Outside {
  /** A picture in a folder beside the file. */
  beside(path: string): Promise<Uint8Array | undefined>;
  faces: readonly OdfFace[];
  /** How large a picture is, in pixels: crops are told by it. */
  sizeOf(bytes: Uint8Array): Promise<{ width: number; height: number }>;
}

const CSS = `html{background:#fff}body{margin:0;overflow-wrap:break-word}p{margin:0;white-space:pre-wrap;tab-size:3em}table{border-collapse:collapse;max-width:100%}td{vertical-align:top}a{color:inherit}.note{font-size:.9em}.begins::first-letter{float:left;font-size:3em;line-height:.85;padding-right:.08em}.contents{margin-bottom:2em}`;

const html = (drawn: string, faces: readonly OdfFace[], more = ''): string => {
  const asked = faces.filter(
    ({ family }) => drawn.includes(`font-family:'${family}'`) || drawn.includes(`font-family:&#39;${family}&#39;`),
  );
  const rules = asked.map(({ family, weight, style, bytes }) => {
    const src = `url(data:font/ttf;base64,${Buffer.from(bytes).toString('base64')})`;
    return `@font-face{font-family:'${family}';font-weight:${weight};font-style:${style};src:${src}}`;
  });
  return drawnPage(drawn, `${rules.join('\n')}${CSS}${more}`);
};

/** A presentation of OpenDocument drawn from its bytes alone, a slide as a page of HTML; `page`: which page of the layout, counted from 1: a slide may show several. */
export async function redrawOdp(bytes: Uint8Array, page: number, outside: Outside): Promise<string> {
  const pack = await openPackage(bytes);
  const slides = childrenOf(child(child(pack.content, 'office:body'), 'office:presentation'), 'draw:page');
  let shown = 0;
  const at = slides.findIndex((s) => {
    shown += pagesNamed(s.attributes['draw:name']);
    return page <= shown;
  });
  const slide = slides[at];
  if (!slide) return html('', []);
  const pictures = await picturesOf(pack, outside);
  const master = childrenOf(child(pack.styles, 'office:master-styles'), 'style:master-page').find(
    (m) => m.attributes['style:name'] === slide.attributes['draw:master-page-name'],
  );
  const layout = childrenOf(child(pack.styles, 'office:automatic-styles'), 'style:page-layout').find(
    (l) => l.attributes['style:name'] === master?.attributes['style:page-layout-name'],
  );
  const size = child(layout, 'style:page-layout-properties')?.attributes ?? {};
  const [width, height] = [pointsOf(size['fo:page-width']), pointsOf(size['fo:page-height'])];
  const drawingOf = (own: Node | undefined): SlideDrawing => new SlideDrawing(pack, new OdfStyles(pack.styles, own), pictures, at + 1);
  const front = drawingOf(pack.content);
  const ownStyle = slide.attributes['draw:style-name'];
  const showsMaster = front.styles.get(
    'drawing-page',
    ownStyle,
    'style:drawing-page-properties',
    'presentation:background-objects-visible',
  );
  const back = drawingOf(pack.styles);
  const behind = showsMaster !== 'false' && master ? back.shapes({ ...master, children: master.children.filter((n) => !isPlace(n)) }) : '';
  const whole = { x: 0, y: 0, width, height };
  // A page that has no ground of its own shows that of its master.
  const ground = front.ground(ownStyle, whole) || back.ground(master?.attributes['draw:style-name'], whole);
  const drawn = `<section style="position:relative;overflow:hidden;width:${width}pt;height:${height}pt">${ground}${behind}${front.shapes(slide)}</section>`;
  return html(drawn, outside.faces);
}

/**
 * An open text document drawn from its bytes alone, as a page of HTML: its own line breaks and pages come from there. `page`: which,
 * counted from 1, where it is laid out page by page.
 */
export async function redrawOdt(bytes: Uint8Array, page: number, outside: Outside): Promise<string> {
  const pack = await openPackage(bytes);
  const body = child(child(pack.content, 'office:body'), 'office:text');
  const pictures = await picturesOf(pack, outside);
  const pages = openTextPages(pack.content, pack.styles);
  if (pages.length) return html(drawTextPage(pack, pages, page, pictures), outside.faces);
  const text = new OdfTextDrawing(new OdfStyles(pack.styles, pack.content), { picture: (href) => pictures.get(href)?.src });
  const layout = child(child(pack.styles, 'office:automatic-styles'), 'style:page-layout');
  const a = child(layout, 'style:page-layout-properties')?.attributes ?? {};
  const sides = ['top', 'right', 'bottom', 'left'].map((side) => `${pointsOf(a[`fo:margin-${side}`] ?? a['fo:margin'])}pt`).join(' ');
  const drawn = body ? text.blocks(body) : '';
  return html(
    `${drawn}${text.notes()}`,
    outside.faces,
    `body{box-sizing:border-box;width:${pointsOf(a['fo:page-width'])}pt;padding:${sides}}`,
  );
}

/** A page of a text document whose things are anchored there, from back to front. Text that goes on in another box is moved up there by the boxes before it. */
function drawTextPage(pack: OpenPackage, pages: readonly OpenTextPage[], at: number, pictures: ReadonlyMap<string, Shown>): string {
  const page = pages[at - 1];
  if (!page) return '';
  const objects = pages.flatMap((p) => [...p.header, ...p.own]);
  const byName = new Map(objects.map(({ node }) => [node.attributes['draw:name'] ?? '', node]));
  const before = new Map(
    [...chainsIn(objects)].map(([name, names]) => {
      const boxes = names.flatMap((n) => byName.get(n) ?? []);
      const height = boxes.reduce((sum, n) => sum + pointsOf(n.attributes['svg:height']), 0);
      return [name, { first: child(boxes[0], 'draw:text-box'), height }] as const;
    }),
  );
  const drawing = (own: Node | undefined): SlideDrawing =>
    new SlideDrawing(pack, new OdfStyles(pack.styles, own), pictures, page.number, before);
  const [front, behind] = [drawing(pack.content), drawing(pack.styles)];
  const all = [...page.header.map((o) => ({ ...o, by: behind })), ...page.own.map((o) => ({ ...o, by: front }))];
  const inside = all.sort((a, b) => a.depth - b.depth).map(({ node, by }) => by.shape(node));
  return `<section style="position:relative;overflow:hidden;width:${page.width}pt;height:${page.height}pt">${inside.join('\n')}</section>`;
}

/** Pictures by the addresses that the file has for them. */
async function picturesOf(pack: OpenPackage, { beside, sizeOf }: Outside): Promise<Map<string, Shown>> {
  const out = new Map<string, Shown>();
  const TYPES: Record<string, string> = { jpg: 'image/jpeg', png: 'image/png', svg: 'image/svg+xml', tiff: 'image/tiff' };
  const visit = async (node: Node): Promise<void> => {
    const href = node.name === 'draw:image' ? node.attributes['xlink:href'] : undefined;
    if (href !== undefined && !out.has(href)) {
      const bytes = href.startsWith('../') ? await beside(href.slice(3)) : pack.files.get(href);
      const type = TYPES[/\.(\w+)$/.exec(href)?.[1] ?? ''];
      const size = bytes && (await sizeOf(bytes).catch(() => null));
      if (bytes && type && size)
        out.set(href, {
          src: `data:${type};base64,${Buffer.from(bytes).toString('base64')}`,
          natural: { width: size.width * 0.75, height: size.height * 0.75 },
        });
    }
    for (const c of node.children) await visit(c);
  };
  for (const part of [pack.content, pack.styles]) if (part) await visit(part);
  return out;
}
