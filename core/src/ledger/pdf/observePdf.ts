import { getDocument } from './pdfjs.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import type { PicturePort } from '../../ports/ports.ts';
import { SIGNATURE_CELLS } from '../findings.ts';
import { mergeShapes } from '../mergeShapes.ts';
import { factKey } from '../motionFacts.ts';
import type { MotionFacts } from '../motionFacts.ts';
import type { ObservedBlock, ObservedCell, ObservedDocument, ObservedPage, ObservedRun } from '../observed.ts';
import { filePictures, objectOfPixels } from './filePictures.ts';
import type { FilePictures } from './filePictures.ts';
import { fieldOfWidget } from './observeForm.ts';
import type { WidgetOfPdf } from './observeForm.ts';
import { motionOfFile } from './observeMotion.ts';
import { openFile } from './pdfFile.ts';
import { structureTrees } from './structureTree.ts';
import type { StructureNode } from './structureTree.ts';
import { walkContent } from './contentWalker.ts';
import type { Operators } from './contentWalker.ts';

interface PdfImage {
  width: number;
  height: number;
  kind: number;
  data: Uint8Array | Uint8ClampedArray;
}
interface ImageStore {
  get(id: string, callback: (image: PdfImage) => void): void;
}
interface PdfPage {
  view: number[];
  getOperatorList(): Promise<Operators>;
  getAnnotations(): Promise<(WidgetOfPdf & { url?: string; unsafeUrl?: string; dest?: string | unknown[] | null })[]>;
  commonObjs: { get(id: string): { name: string; missingFile?: boolean } } & ImageStore;
  objs: ImageStore;
  cleanup(): boolean;
}
interface OutlineNode {
  title: string;
  dest: string | unknown[] | null;
  items: OutlineNode[];
}
interface PdfDocument {
  numPages: number;
  getPage(n: number): Promise<PdfPage>;
  getMetadata(): Promise<{ info: { Title?: string; Language?: string } }>;
  getOutline(): Promise<OutlineNode[] | null>;
  getDestination(name: string): Promise<unknown[] | null>;
  getPageIndex(ref: unknown): Promise<number>;
  destroy(): Promise<void>;
}

/** Structure types (ISO 32000-1, 14.8.4) as the roles they stand for. */
const ROLES: Record<string, string> = {
  H1: 'h1',
  H2: 'h2',
  H3: 'h3',
  H4: 'h4',
  H5: 'h5',
  H6: 'h6',
  P: 'p',
  LBody: 'li',
  BlockQuote: 'blockquote',
  Caption: 'figcaption',
  Note: 'aside',
  Figure: 'figure',
};

/** Reads a PDF back with pdf.js: its tags in reading order, and the text, pictures and outlines on its pages. */
export async function observePdf(bytes: Uint8Array, port: PicturePort): Promise<ObservedDocument> {
  const { motion, trees, pictures } = await readObjects(bytes, port);
  const task = getDocument({
    data: pictures.bytes,
    verbosity: 0,
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
  } as Parameters<typeof getDocument>[0]);
  const pdf = (await task.promise) as unknown as PdfDocument;
  try {
    const { info } = await pdf.getMetadata();
    const language = info.Language ?? '';
    const embedded = new Set<string>();
    const pages: ObservedPage[] = [];
    for (let n = 1; n <= pdf.numPages; n++)
      pages.push(await readPage(pdf, await pdf.getPage(n), language, embedded, { port, pictures }, motion, trees[n - 1] ?? []));
    return { title: info.Title ?? '', language, outline: await readOutline(pdf), pages, embedded: [...embedded], motion };
  } finally {
    await pdf.destroy();
  }
}

/** What is read of the objects themselves, which are let go of then: those of long documents take more than all else. */
async function readObjects(
  bytes: Uint8Array,
  port: PicturePort,
): Promise<{ motion: MotionFacts; trees: StructureNode[][]; pictures: FilePictures }> {
  const file = await openFile(bytes);
  return { motion: motionOfFile(file), trees: structureTrees(file), pictures: filePictures(bytes, file, port) };
}

async function readOutline(pdf: PdfDocument): Promise<ObservedDocument['outline']> {
  const out: ObservedDocument['outline'] = [];
  const visit = async (nodes: readonly OutlineNode[]): Promise<void> => {
    for (const node of nodes) {
      out.push({ text: node.title, page: await pageOf(pdf, node.dest) });
      await visit(node.items);
    }
  };
  await visit((await pdf.getOutline()) ?? []);
  return out;
}

async function pageOf(pdf: PdfDocument, dest: string | unknown[] | null | undefined): Promise<number | null> {
  const explicit = typeof dest === 'string' ? await pdf.getDestination(dest) : dest;
  if (!explicit?.[0]) return null;
  return pdf.getPageIndex(explicit[0]).then(
    (i) => i + 1,
    () => null,
  );
}

/** What holds for what is inside an element of the structure tree. */
interface Place {
  language: string;
  block: ObservedBlock | null;
  cell: ObservedCell | null;
  linked: boolean;
}

async function readPage(
  pdf: PdfDocument,
  page: PdfPage,
  language: string,
  embedded: Set<string>,
  outside: Outside,
  motion: MotionFacts,
  tree: readonly StructureNode[],
): Promise<ObservedPage> {
  const [x0, y0, x1, y1] = page.view as [number, number, number, number];
  const toPage: Matrix = [1, 0, 0, -1, -x0, y1];
  const ops = await page.getOperatorList();
  const content = walkContent(ops, toPage, (id) => {
    const font = page.commonObjs.get(id);
    const name = font.name.replace(/^[A-Z]{6}\+/, '');
    if (!font.missingFile) embedded.add(name);
    return name;
  });
  const links: { box: Rect; target: string }[] = [];
  const parts: ObservedPage['parts'] = [];
  for (const a of await page.getAnnotations()) {
    const field = fieldOfWidget(a, ([ax = 0, ay = 0, bx = 0, by = 0]) => ({ x: ax - x0, y: y1 - by, width: bx - ax, height: by - ay }));
    if (field) {
      motion.set(factKey('item', field.key, 'field'), field.fact);
      parts.push({ item: field.key, box: field.box });
    }
    if (a.subtype !== 'Link') continue;
    const [ax, ay, bx, by] = a.rect as [number, number, number, number];
    const target = a.unsafeUrl ?? a.url ?? `page:${await pageOf(pdf, a.dest)}`;
    links.push({ target, box: { x: ax - x0, y: y1 - by, width: bx - ax, height: by - ay } });
  }
  const blocks: ObservedBlock[] = [];
  const tables: ObservedCell[][][] = [];
  const taken = new Set<number>();
  const visit = (node: StructureNode, inherited: Place): void => {
    const here = { ...inherited, language: node.lang ?? inherited.language, linked: inherited.linked || node.role === 'Link' };
    const role = ROLES[node.role];
    if (node.role === 'Table') tables.push([]);
    else if (node.role === 'TR') tables.at(-1)?.push([]);
    else if (node.role === 'TH' || node.role === 'TD') {
      here.cell = { text: '', heading: node.role === 'TH' };
      tables.at(-1)?.at(-1)?.push(here.cell);
    }
    if (role)
      blocks.push((here.block = { role, text: '', language: here.language, runs: [], ...(role === 'figure' && { alt: node.alt ?? '' }) }));
    // Letters drawn as shapes say what they stand for (ActualText).
    const actual = node.role === 'Span' ? node.alt : undefined;
    const read = (text: string): void => {
      if (here.block) here.block.text += text;
      if (here.cell) here.cell.text += text;
    };
    if (actual !== undefined) read(actual);
    for (const child of node.children) {
      if ('role' in child) visit(child, here);
      else {
        const mcid = child.mark;
        taken.add(mcid);
        if (here.block) here.block.at ??= child.at;
        for (const run of content.text.get(mcid) ?? []) {
          const link = here.linked
            ? links.find(
                (l) =>
                  run.start.x >= l.box.x - 1 &&
                  run.start.x <= l.box.x + l.box.width &&
                  run.start.y >= l.box.y - 1 &&
                  run.start.y <= l.box.y + l.box.height + 1,
              )?.target
            : undefined;
          here.block?.runs.push({ ...run, language: here.language, ...(link !== undefined && { link }) });
          read(run.text);
        }
        if (here.block?.role === 'figure') here.block.box = content.images.find((im) => im.mcid === mcid)?.box;
      }
    }
  };
  for (const node of tree) visit(node, { language, block: null, cell: null, linked: false });
  const pictures = await Promise.all(
    content.images.map(async (image) => ({ box: image.box, alt: undefined, picture: await signatureOf(page, image.object, outside) })),
  );
  const loose = [...content.text]
    .filter(([mcid]) => !taken.has(mcid))
    .flatMap(([, runs]) => runs.map((run): ObservedRun => ({ ...run, language })));
  page.cleanup();
  return {
    width: x1 - x0,
    height: y1 - y0,
    blocks: blocks.filter((b) => b.role === 'figure' || b.text.trim()),
    pictures,
    shapes: mergeShapes(content.shapes),
    tables,
    loose,
    // A place that leads somewhere and has words is found by them; all others are looked for where they should be.
    areas: links,
    parts,
  };
}

/** What pictures are read with: those of the file by themselves, all others by their pixels. */
interface Outside {
  port: PicturePort;
  pictures: FilePictures;
}

async function signatureOf(page: PdfPage, object: string, { port, pictures }: Outside): Promise<Uint8Array> {
  // pdf.js keeps pictures that several pages share (g_…) apart from a page's own.
  const store: ImageStore = object.startsWith('g_') ? page.commonObjs : page.objs;
  const image = await new Promise<PdfImage | null>((resolve) => store.get(object, resolve));
  if (!image?.data || image.kind === 1) return new Uint8Array();
  const number = objectOfPixels(image.data);
  const ofFile = number === null ? null : pictures.signature(number);
  if (ofFile) return ofFile;
  const channels = image.kind === 2 ? 3 : 4;
  return port.signatureOfPixels(
    new Uint8Array(image.data.buffer, image.data.byteOffset, image.width * image.height * channels),
    image.width,
    image.height,
    channels,
    SIGNATURE_CELLS,
  );
}
