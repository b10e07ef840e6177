import type { Folio } from '../folio/folio.ts';
import type { Inline, Story } from '../folio/story.ts';
import { paragraphRole } from '../folio/resolve.ts';
import { readText } from '../folio/text.ts';
import { pageOfItem, pagesOf, printedNumber } from '../folio/traverse.ts';
import type { FieldKind } from './blockFacts.ts';
import type { StorySetting } from './composeStory.ts';
import type { FlowFrame } from './flow.ts';
import { composedSpread } from './anchored.ts';
import { fieldText } from './fieldText.ts';
import type { FieldSources } from './fieldText.ts';
import type { Composition, SetLine } from './marks.ts';

type Field = Inline & { type: 'field' };

/** What changed of where things stand: paragraphs on another page or with another number, pages on which another section runs. */
export interface Moved {
  onOtherPage: ReadonlySet<string>;
  renumbered: ReadonlySet<string>;
  underOtherSection: ReadonlySet<string>;
}

/** What fields show: page numbers and titles at once, names of sections and references once it is known where things stand. */
export class Fields {
  /** Printed page number by paragraph. */
  private pages = new Map<string, string>();
  /** Numbers and bullets by paragraph. */
  private labels = new Map<string, string>();
  private movedLabels = new Set<string>();
  /** The section that runs on each page. */
  private sections = new Map<string, string>();

  text(folio: Folio, node: Field, frame: FlowFrame | null): string {
    return fieldText(folio, node, {
      page: frame ? frame.page : null,
      pageOf: (paragraph) => this.pages.get(paragraph),
      labelOf: (paragraph) => this.labels.get(paragraph),
      sectionOn: (page) => this.sections.get(page),
    });
  }

  /** Learns the numbers of paragraphs, which are known before anything is set. */
  learnLabels(settings: Iterable<StorySetting>): void {
    const labels = new Map<string, string>();
    for (const setting of settings) for (const [id, label] of setting.flow.labels) labels.set(id, label.text.trim());
    for (const id of differing(labels, this.labels)) this.movedLabels.add(id);
    this.labels = labels;
  }

  /** Learns where paragraphs came to stand; gives what of it is new. */
  learn(folio: Folio, settings: Iterable<StorySetting>): Moved {
    const { pages, sections } = placesOfText(folio, framesOf(settings));
    const moved: Moved = {
      onOtherPage: new Set(differing(pages, this.pages)),
      renumbered: this.movedLabels,
      underOtherSection: new Set(differing(sections, this.sections)),
    };
    this.movedLabels = new Set();
    [this.pages, this.sections] = [pages, sections];
    return moved;
  }

  /** Whether a text shows something that depends on where text came to stand. */
  static refersIn(kinds: ReadonlySet<FieldKind>): boolean {
    return kinds.has('reference') || kinds.has('label') || kinds.has('sectionName');
  }
}

/** A frame as it was set, on its page. */
interface SetFrame {
  story: Story;
  page: string;
  /** Where it begins on its spread, from the top. */
  top: number;
  lines: readonly SetLine[];
}

function* framesOf(settings: Iterable<StorySetting>): Generator<SetFrame> {
  for (const { story, chain, frames } of settings)
    for (const [i, frame] of frames.entries()) yield { story, page: chain[i]!.page, top: chain[i]!.frame.transform[5], lines: frame.lines };
}

/** The printed number of the page on which each paragraph begins, and the section that runs on each page. */
function placesOfText(folio: Folio, frames: Iterable<SetFrame>): { pages: Map<string, string>; sections: Map<string, string> } {
  const number = new Map(pagesOf(folio).map((p) => [p.page.id, printedNumber(p)]));
  const pages = new Map<string, string>();
  const starts = new Map<string, { top: number; text: string }>();
  for (const { story, page, top: from, lines } of frames)
    for (const line of lines) {
      if (!line.first || pages.has(line.paragraph)) continue;
      pages.set(line.paragraph, number.get(page) ?? '');
      const block = story.blocks[line.paragraph];
      if (block?.kind !== 'paragraph') continue;
      const role = paragraphRole(folio.head, block.style);
      if (!role.startsSection) continue;
      const top = from + line.baseline;
      const before = starts.get(page);
      if (!before || top < before.top) starts.set(page, { top, text: readText(block) });
    }
  const sections = new Map<string, string>();
  let running = '';
  for (const { page } of pagesOf(folio)) sections.set(page.id, (running = starts.get(page.id)?.text ?? running));
  return { pages, sections };
}

/** What fields of a document that is set show, for whoever writes them anew. */
export function fieldsAsSet(folio: Folio, composition: Composition): Pick<FieldSources, 'pageOf' | 'sectionOn'> {
  const frames = function* (): Generator<SetFrame> {
    for (const [id, { story, spread, lines }] of composition.frames) {
      const bare = folio.spreads[spread];
      const item = bare && composedSpread(folio, composition, bare).items[id];
      if (item && folio.stories[story])
        yield {
          story: folio.stories[story]!,
          page: pageOfItem(composedSpread(folio, composition, bare!), item).id,
          top: item.transform[5],
          lines,
        };
    }
  };
  const { pages, sections } = placesOfText(folio, frames());
  return { pageOf: (paragraph) => pages.get(paragraph), sectionOn: (page) => sections.get(page) };
}

function differing(a: ReadonlyMap<string, string>, b: ReadonlyMap<string, string>): string[] {
  const out: string[] = [];
  for (const [k, v] of a) if (b.get(k) !== v) out.push(k);
  for (const k of b.keys()) if (!a.has(k)) out.push(k);
  return out;
}
