import { IDENTITY } from '../../folio/geometry.ts';
import type { Item } from '../../folio/items.ts';
import type { Inline } from '../../folio/story.ts';
import type { NotTakenList } from '../../intake/notTaken.ts';
import type { ShapeReader } from './shapeReader.ts';
import type { Content } from './textReader.ts';
import { childOf, childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

export type Anchor = Extract<Inline, { type: 'anchor' }>;

/** The frame of a picture that stands in a line like a letter (part 3, 10.4.2 draw:frame in text:p), linked or not; else undefined. */
export function pictureInLine(element: XmlElement): XmlElement | undefined {
  if (element.name === 'draw:a') return childrenOf(element).length === 1 ? pictureInLine(childrenOf(element)[0]!) : undefined;
  if (element.name !== 'draw:frame' || !childOf(element, 'draw:image')) return undefined;
  return childOf(element, 'draw:text-box') || childOf(element, 'table:table') ? undefined : element;
}

/**
 * Pictures in lines of text. Texts are read at one go and pictures are not: each waits with its place in the text until the
 * objects of the page are there, and is an item of its text then.
 */
export class PicturesInLines {
  private waiting: { element: XmlElement; anchor: Anchor; content: Content }[] = [];

  constructor(private readonly notTaken: NotTakenList) {}

  wait(element: XmlElement, anchor: Anchor, content: Content): void {
    this.waiting.push({ element, anchor, content });
  }

  async settle(reader: ShapeReader): Promise<void> {
    for (const { element, anchor, content } of this.waiting.splice(0)) {
      const { items } = await reader.single(element);
      const [item] = items;
      if (!item || items.length > 1) {
        this.notTaken.add('leftOut', 'Picture in a line', 'it cannot be read, or has a text over it');
        takeOut(content, anchor);
        continue;
      }
      if (!/^(as-char)?$/.test(pictureInLine(element)?.attributes['text:anchor-type'] ?? ''))
        this.notTaken.add('changed', 'Picture beside a text', 'it stands in the line of its text');
      const [a, b, c, d] = item.transform ?? IDENTITY;
      anchor.item = item.id;
      // Where it stands is where its line has it. What is left out here the schema fills in.
      content.items[item.id] = { ...item, transform: [a, b, c, d, 0, 0] } as Item;
    }
  }
}

function takeOut(content: Content, anchor: Anchor): void {
  for (const block of Object.values(content.blocks))
    if (block.kind === 'paragraph' && block.content.includes(anchor)) block.content = block.content.filter((node) => node !== anchor);
}
