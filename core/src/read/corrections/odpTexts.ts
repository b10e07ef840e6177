import { child, childrenOf, within } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import { saidWords } from '../odf/saidWords.ts';
import { notOurs, partsOf } from './officeArchive.ts';
import type { SlideTexts, WrittenText } from './slideTexts.ts';

const OWN = 'urn:elastic-folio:slides:1#';

/** Reads slides of OpenDocument that were written here and changed elsewhere: by the names of slides and of boxes. Throws a FolioError where they are none. */
export async function odpTexts(file: string, limits: ArchiveLimits): Promise<SlideTexts> {
  const parts = await partsOf(file, limits, /^([^/]+\.rdf|content\.xml)$/);
  let document: string | null = null;
  const boxes = new Map<string, { slide: string; shape: string; texts: { at: number; text: WrittenText }[] }>();
  for (const [path, { children }] of parts) {
    if (!path.endsWith('.rdf')) continue;
    for (const { children: says } of children) {
      const own = new Map(says.flatMap((s) => (s.uri === OWN ? [[s.local, s.text] as const] : [])));
      document = own.get('document') ?? document;
      const [id, slide, shape] = [own.get('paragraph'), own.get('slide'), own.get('shape')];
      if (id === undefined || slide === undefined || shape === undefined) continue;
      const number = (name: string): number => Number(own.get(name) ?? 0);
      const key = JSON.stringify([slide, shape]);
      const box = boxes.get(key) ?? { slide, shape, texts: [] };
      boxes.set(key, box);
      const text = { id, from: number('from'), to: number('to'), text: own.get('text') ?? '', said: own.get('said') ?? '' };
      box.texts.push({ at: number('at'), text });
    }
  }
  if (document === null) throw notOurs('does not say which paragraphs of a document it holds');
  // Programs may write statements in any order.
  const written = [...boxes.values()].map(({ texts, ...box }) => ({
    ...box,
    texts: texts.sort((a, b) => a.at - b.at).map((t) => t.text),
  }));
  const slides: SlideTexts['slides'] = new Map();
  const pages = childrenOf(child(child(parts.get('content.xml'), 'office:body'), 'office:presentation'), 'draw:page');
  for (const [i, page] of pages.entries()) {
    const name = page.attributes['draw:name'] ?? '';
    slides.set(slides.has(name) ? `${name} (${i})` : name, boxesOf(page));
  }
  return { document, written, slides };
}

/** Boxes with words in them, and tables, by their names; those without one, or with that of another, by numbers. */
function boxesOf(page: Node): Map<string, string[]> {
  const out = new Map<string, string[]>();
  const visit = (around: Node): void => {
    for (const node of around.children) {
      if (node.name === 'presentation:notes') {
        out.set('notes', textsIn(node));
        continue;
      }
      if (node.name === 'draw:g' || node.name === 'draw:a') visit(node);
      if (!/^draw:(frame|custom-shape|rect|path)$/.test(node.name)) continue;
      const texts = textsIn(node);
      const name = node.attributes['draw:name'];
      if (texts.length) out.set(name === undefined || out.has(name) ? `#${out.size}` : name, texts);
    }
  };
  visit(page);
  return out;
}

const textsIn = (box: Node): string[] =>
  [...within(box)].flatMap((n) => (n.name === 'text:p' || n.name === 'text:h' ? [saidWords(n, (e) => e.content)] : []));
