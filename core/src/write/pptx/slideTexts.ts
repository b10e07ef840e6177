import type { Folio } from '../../folio/folio.ts';
import { contentLength } from '../../folio/text.ts';
import { signsOf } from '../../ports/textSign.ts';
import { partOf } from '../../structure/boxBlocks.ts';
import type { BoxBlock } from '../../structure/boxBlocks.ts';
import { writeCustomXml } from '../ooxml/customXml.ts';
import type { OfficePackage, Part } from '../ooxml/officePackage.ts';
import { el, words } from '../assets/xml.ts';

/** What the list of texts is written in. */
const SLIDES = 'urn:elastic-folio:slides:1';

/** A paragraph as it was written into a box: which, what part of it, and its words with those of its fields, numbers and notes. */
interface Told {
  id: string;
  from: number;
  to: number;
  said: string;
}

/** Keeps which paragraphs stand in which boxes of slides, so that what colleagues change is found again. */
export class SlideTexts {
  private readonly boxes = new Map<string, Told[]>();

  /** What takes down the paragraphs of one box; `slide` and `shape` are their numbers, `notes` that of speaker’s notes. */
  of(slide: number, shape: number | 'notes'): (block: BoxBlock, said: string) => void {
    return (part, said) => {
      const { block } = part;
      if (block.kind !== 'paragraph') return;
      const key = `${slide} ${shape}`;
      const known = this.boxes.get(key);
      const told = { id: block.id, ...(partOf(part) ?? { from: 0, to: contentLength(block.content) }), said };
      if (known) known.push(told);
      else this.boxes.set(key, [told]);
    };
  }

  write(pack: OfficePackage, presentation: Part, folio: Folio): void {
    const signs = signsOf(folio);
    const boxes = [...this.boxes].map(([key, list]) => {
      const [slide, shape] = key.split(' ') as [string, string];
      const told = list.map(({ id, from, to, said }) => el('paragraph', { id, from, to, text: signs.get(id) }, words(said)));
      return el('box', { slide, shape }, told);
    });
    writeCustomXml(pack, presentation, folio.head.id, SLIDES, el('texts', { xmlns: SLIDES, document: folio.head.id }, boxes));
  }
}
