import type { Folio } from '../../folio/folio.ts';
import type { Block, Paragraph } from '../../folio/story.ts';
import { contentLength } from '../../folio/text.ts';
import { signsOf } from '../../ports/textSign.ts';
import { partOf } from '../../structure/boxBlocks.ts';
import type { BoxBlock } from '../../structure/boxBlocks.ts';
import { saidWords } from '../../read/odf/saidWords.ts';
import { readXml } from '../../packages/xmlTree.ts';
import { NAMESPACES } from '../opendocument/drawing.ts';
import { el, text } from '../opendocument/element.ts';
import type { Xml } from '../opendocument/element.ts';
import type { OdfFile } from '../opendocument/odfPackage.ts';
import type { TakesTexts } from '../opendocument/odfSources.ts';
import { about, ownMetadata } from '../opendocument/ownMetadata.ts';

/** A paragraph as it was written into a box of a slide. */
interface Told {
  id: string;
  from: number;
  to: number;
  said: string;
}

const FILE = 'texts.rdf';
const say = (property: string, value: string | number): Xml => el(`own:${property}`, {}, [text(String(value))]);

/** Keeps which paragraphs stand in which boxes of slides, so that what colleagues change is found again. */
export class SlideSigns implements TakesTexts {
  private readonly boxes: { slide: string; shape: string; texts: Told[] }[] = [];
  private readonly parts = new Map<Block, BoxBlock>();
  private at = '';
  private readonly taken = new Set<string>();

  slide(name: string): void {
    this.at = name;
    this.taken.clear();
  }

  box(name: string, blocks: readonly BoxBlock[]): string {
    let shape = name;
    for (let n = 2; this.taken.has(shape); n++) shape = `${name} ${n}`;
    this.taken.add(shape);
    this.boxes.push({ slide: this.at, shape, texts: [] });
    for (const b of blocks) this.parts.set(b.block, b);
    return shape;
  }

  paragraph(p: Paragraph, inside: Xml): void {
    const held = this.parts.get(p);
    const part = (held && partOf(held)) ?? { from: 0, to: contentLength(p.content) };
    this.boxes.at(-1)?.texts.push({ id: p.id, ...part, said: saidIn(inside) });
  }

  /** A paragraph that stands whole in the box, by its words. */
  told(id: string, length: number, said: string): void {
    this.boxes.at(-1)?.texts.push({ id, from: 0, to: length, said });
  }

  /** The list of them, for the package. */
  files(folio: Folio): OdfFile[] {
    const signs = signsOf(folio);
    return ownMetadata(FILE, 'urn:elastic-folio:slides:1#', [
      about('content.xml', say('document', folio.head.id)),
      ...this.boxes.flatMap(({ slide, shape, texts }, i) =>
        texts.map(({ id, from, to, said }, n) =>
          about(
            `${FILE}#b${i}.${n}`,
            ...[say('slide', slide), say('shape', shape), say('at', n), say('paragraph', id), say('from', from), say('to', to)],
            say('text', signs.get(id) ?? ''),
            say('said', said),
          ),
        ),
      ),
    ]);
  }
}

/** The words of what was written into a paragraph. */
function saidIn(inside: Xml): string {
  const paragraph = readXml(el('text:p', NAMESPACES, [inside]), 'what was written');
  return saidWords(paragraph, (e) => e.children);
}
