import type { SetLine } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import { transformRect, multiply, translation } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import type { Paragraph, Story } from '../../folio/story.ts';
import { paragraphRole } from '../../folio/resolve.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { alignedPairs, worthOfCost } from '../../alignment/alignSequences.ts';
import type { Findings } from '../findings.ts';
import type { ObservedPage } from '../observed.ts';
import type { FlowBlock, FlowSection } from '../../structure/flow.ts';
import { isUnread, readingItems } from '../../structure/readingOrder.ts';
import type { BoxChain } from '../../structure/textBoxes.ts';

/** How far a box may stand from its place, in points. */
const TOLERANCE = 0.05;

/** The words of boxes in the order in which a file of placed boxes has them: each text where its first box is read. */
export function wordsInBoxes(folio: Folio, pages: readonly PagePlace[], chains: readonly BoxChain[]): FlowSection[] {
  const first = new Map(chains.map((c) => [c.areas[0]?.item, c]));
  const blocks: FlowBlock[] = [];
  for (const { page, spread } of pages)
    for (const item of readingItems(folio, spread)) {
      const chain = first.get(item.id);
      if (!chain || chain.areas[0]!.page !== page.id || isUnread(folio, item.id)) continue;
      const { story } = chain;
      const notes: string[] = [];
      const add = (paragraph: Paragraph, lines?: readonly SetLine[]): void => {
        notes.push(...paragraph.content.flatMap((n) => (n.type === 'note' ? n.order : [])));
        blocks.push({ ...flowParagraph(folio, story, paragraph, item.id, page.id), ...(lines && { lines }) });
      };
      for (const { block, lines } of chain.blocks) {
        if (block.kind === 'paragraph') add(block, lines);
        else {
          blocks.push({ kind: 'table', story, table: block, item: item.id, page: page.id });
          for (const cell of Object.values(block.cells))
            for (const id of cell.order) {
              const held = story.blocks[id];
              if (held?.kind === 'paragraph') notes.push(...held.content.flatMap((n) => (n.type === 'note' ? n.order : [])));
            }
        }
      }
      for (let i = 0; i < notes.length && i < 1000; i++) {
        const note = story.blocks[notes[i]!];
        if (note?.kind === 'paragraph') add(note);
      }
    }
  return [{ start: null, blocks }];
}

const flowParagraph = (folio: Folio, story: Story, paragraph: Paragraph, item: string, page: string): FlowBlock => ({
  kind: 'paragraph',
  story,
  paragraph,
  role: paragraphRole(folio.head, paragraph.style),
  item,
  page,
  breaks: [],
  inline: [],
});

/** Whether every box of text stands where its frame does, and as many as there are. */
export function compareBoxes(
  pages: readonly PagePlace[],
  chains: readonly BoxChain[],
  observed: readonly ObservedPage[],
  found: Findings,
): void {
  pages.forEach(({ page, spread }, i) => {
    const toPage = translation(-page.box.x, -page.box.y);
    const want = chains.flatMap((c) =>
      c.areas.flatMap((a) =>
        a.page === page.id ? [{ item: a.item, box: transformRect(multiply(toPage, spread.items[a.item]!.transform), a.rect) }] : [],
      ),
    );
    comparePlacedBoxes(want, observed[i]?.boxes ?? [], found);
  });
}

/** The same for the boxes of one page. */
export function comparePlacedBoxes(wanted: readonly { item: string; box: Rect }[], observed: readonly Rect[], found: Findings): void {
  const [want, have] = [[...wanted], [...observed]];
  const inOrder = (a: Rect, b: Rect): number => a.y - b.y || a.x - b.x;
  want.sort((a, b) => inOrder(a.box, b.box));
  have.sort(inOrder);
  const far = new Map<string, number>();
  const worth = (a: number, b: number): number => worthOfCost(Math.min(1, distance(want[a]!.box, have[b]!) / 20));
  for (const pair of alignedPairs({ lengths: [want.length, have.length], worth })) {
    if (pair.expected === null) continue;
    const { item, box } = want[pair.expected]!;
    const off = pair.observed === null ? Infinity : distance(box, have[pair.observed]!);
    far.set(item, Math.max(far.get(item) ?? 0, off));
  }
  for (const [item, off] of far) {
    const says = off === Infinity ? 'it is not there' : `stands ${Math.round(off * 100) / 100} pt from its place`;
    found.say('item', item, 'place', off <= TOLERANCE, off <= TOLERANCE ? 'in its place' : says);
  }
}

const distance = (a: Rect, b: Rect): number =>
  Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y), Math.abs(a.x + a.width - b.x - b.width), Math.abs(a.y + a.height - b.y - b.height));
