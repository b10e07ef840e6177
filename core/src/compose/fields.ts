import type { Folio } from '../folio/folio.ts';
import type { Inline } from '../folio/story.ts';
import { paragraphRole } from '../folio/resolve.ts';
import { pagesOf, printedNumber } from '../folio/traverse.ts';
import type { FieldKind } from './blockFacts.ts';
import type { StorySetting } from './composeStory.ts';
import type { FlowFrame } from './flow.ts';
import { fieldText } from './fieldText.ts';

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
    const number = new Map(pagesOf(folio).map((p) => [p.page.id, printedNumber(p)]));
    const pages = new Map<string, string>();
    const starts = new Map<string, { top: number; text: string }>();
    for (const setting of settings) {
      setting.frames.forEach((frame, i) => {
        const page = setting.chain[i]!.page;
        for (const line of frame.lines) {
          if (!line.first || pages.has(line.paragraph)) continue;
          pages.set(line.paragraph, number.get(page) ?? '');
          const block = setting.story.blocks[line.paragraph];
          if (block?.kind !== 'paragraph') continue;
          const role = paragraphRole(folio.head, block.style);
          if (!role.startsSection) continue;
          const top = setting.chain[i]!.frame.transform[5] + line.baseline;
          const before = starts.get(page);
          if (!before || top < before.top)
            starts.set(page, {
              top,
              text: block.content.map((n) => (n.type === 'span' ? n.text : n.type === 'softReturn' ? ' ' : '')).join(''),
            });
        }
      });
    }
    const sections = new Map<string, string>();
    let running = '';
    for (const { page } of pagesOf(folio)) sections.set(page.id, (running = starts.get(page.id)?.text ?? running));
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

function differing(a: ReadonlyMap<string, string>, b: ReadonlyMap<string, string>): string[] {
  const out: string[] = [];
  for (const [k, v] of a) if (b.get(k) !== v) out.push(k);
  for (const k of b.keys()) if (!a.has(k)) out.push(k);
  return out;
}
