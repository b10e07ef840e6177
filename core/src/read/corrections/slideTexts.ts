import { OBJECT } from '../../folio/text.ts';
import { child, childrenOf, within } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import { notOurs, partsOf } from './officeArchive.ts';

/** A paragraph as it was written into a box of a slide: the part of it between two offsets, and all that was said there. */
export interface WrittenText {
  id: string;
  from: number;
  to: number;
  /** A sign of what the whole paragraph was. */
  text: string;
  said: string;
}

/** The texts of a deck of slides, box by box. */
export interface SlideTexts {
  /** The document that it was written from. */
  document: string;
  written: { slide: string; shape: string; texts: WrittenText[] }[];
  /** What is there now, by the numbers of slides and shapes; what is no letter is one OBJECT. */
  slides: Map<string, Map<string, string[]>>;
}

const LIST = 'urn:elastic-folio:slides:1';
const PARTS = /^(ppt\/(presentation|slides\/[^/]+|notesSlides\/[^/]+)\.xml|ppt\/(slides\/)?_rels\/[^/]+\.rels|customXml\/item\d+\.xml)$/;

/** Reads a deck of slides that was written here and changed elsewhere. Throws a FolioError where it is none. */
export async function slideTexts(file: string, limits: ArchiveLimits): Promise<SlideTexts> {
  const parts = await partsOf(file, limits, PARTS);
  const list = [...parts.values()].find((p) => p.uri === LIST);
  if (!list) throw notOurs('does not say which paragraphs of a document it holds');
  const written = list.children.map(({ attributes: { slide = '', shape = '' }, children }) => ({
    slide,
    shape,
    texts: children.map(({ attributes: a, text }): WrittenText => ({
      id: a['id'] ?? '',
      from: Number(a['from'] ?? 0),
      to: Number(a['to'] ?? 0),
      text: a['text'] ?? '',
      said: text,
    })),
  }));
  const relations = relationsOf(parts, 'ppt/_rels/presentation.xml.rels', 'ppt/');
  const slides: SlideTexts['slides'] = new Map();
  for (const { attributes } of childrenOf(child(parts.get('ppt/presentation.xml'), 'p:sldIdLst'), 'p:sldId')) {
    const path = relations.get(attributes['r:id'] ?? '')?.target ?? '';
    const boxes = boxesOf(parts.get(path));
    const own = relationsOf(parts, path.replace(/(?<=^|\/)([^/]+)$/, '_rels/$1.rels'), 'ppt/slides/');
    const notes = [...own.values()].find((r) => r.type.endsWith('/notesSlide'));
    if (notes) boxes.set('notes', notesOf(parts.get(notes.target)));
    slides.set(attributes['id'] ?? '', boxes);
  }
  return { document: list.attributes['document'] ?? '', written, slides };
}

function relationsOf(parts: ReadonlyMap<string, Node>, path: string, base: string): Map<string, { target: string; type: string }> {
  const out = new Map<string, { target: string; type: string }>();
  for (const { attributes: a } of parts.get(path)?.children ?? []) {
    const target = a['Target'] ?? '';
    const whole = target.startsWith('/') ? target.slice(1) : base + target;
    // Up one folder for each step back.
    out.set(a['Id'] ?? '', { target: whole.replace(/(?<=^|\/)[^/]+\/\.\.\//g, ''), type: a['Type'] ?? '' });
  }
  return out;
}

/** Shapes with words in them, and tables, by their numbers. */
function boxesOf(slide: Node | undefined): Map<string, string[]> {
  const out = new Map<string, string[]>();
  for (const node of slide ? within(slide) : []) {
    if (node.name !== 'p:sp' && node.name !== 'p:graphicFrame') continue;
    const about = child(node.children[0], 'p:cNvPr')?.attributes['id'] ?? '';
    const bodies =
      node.name === 'p:sp'
        ? childrenOf(node, 'p:txBody')
        : [...within(node)].filter((n) => n.name === 'a:tc' && !isCovered(n)).flatMap((tc) => childrenOf(tc, 'a:txBody'));
    const texts = bodies.flatMap((body) => childrenOf(body, 'a:p').map(textOf));
    if (texts.length) out.set(about, texts);
  }
  return out;
}

/** A place of a table that a cell covers which is merged with it. */
const isCovered = ({ attributes: a }: Node): boolean => [a['hMerge'], a['vMerge']].some((v) => v === '1' || v === 'true');

/** Speaker’s notes stand in the place for a body. */
function notesOf(notes: Node | undefined): string[] {
  for (const node of notes ? within(notes) : [])
    if (node.name === 'p:sp' && [...within(node)].some((n) => n.name === 'p:ph' && n.attributes['type'] === 'body'))
      return childrenOf(child(node, 'p:txBody'), 'a:p').map(textOf);
  return [];
}

const textOf = (p: Node): string =>
  p.children
    .map((n) => {
      if (n.name === 'a:br') return '\n';
      if (n.name === 'a:fld') return OBJECT;
      return n.name === 'a:r' ? (child(n, 'a:t')?.text ?? '') : '';
    })
    .join('');
