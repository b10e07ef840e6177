import type { Story } from '../../folio/story.ts';
import { childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';
import type { Names } from './names.ts';
import type { NotTakenList } from '../../intake/notTaken.ts';
import type { TextPlace } from './itemBuilder.ts';
import type { Content } from './textReader.ts';

/** A text as it was read from one frame, with the spread or master page on which that stands; or one that stands on none. */
export type ReadText = { content: Content; place: TextPlace; home: string } | { content: Content; home: null; story: string };
type InFrame = Extract<ReadText, { home: string }>;

/**
 * Stories of the texts that were read. Frames that go on in one another by name (19.122 draw:chain-next-name) show one story;
 * a chain that comes back to itself ends where it does.
 */
export function joinChains(texts: readonly ReadText[], names: Names, notTaken: NotTakenList): Story[] {
  const stories: Story[] = [];
  const framed = texts.filter((t): t is InFrame => t.home !== null);
  const byName = new Map<string, InFrame>();
  for (const t of framed) if (t.place.name !== undefined && !byName.has(t.place.name)) byName.set(t.place.name, t);
  const nextOf = (t: InFrame): InFrame | undefined => (t.place.next === undefined ? undefined : byName.get(t.place.next));
  const followers = new Set(framed.map(nextOf).filter((t) => t !== undefined));
  const taken = new Set<InFrame>();
  const follow = (head: InFrame): void => {
    const chain: InFrame[] = [];
    for (let at: InFrame | undefined = head; at; at = nextOf(at)) {
      if (taken.has(at)) {
        notTaken.add('changed', 'Chain of frames', `it comes back to “${at.place.name ?? ''}” and ends there`);
        break;
      }
      taken.add(at);
      chain.push(at);
    }
    const story = storyOf(chain, names);
    if (story) stories.push(story);
  };
  for (const t of framed) if (!followers.has(t)) follow(t);
  // What is left are rings: each is cut at its first frame.
  for (const t of framed) if (!taken.has(t)) follow(t);
  for (const t of texts) if (t.home === null) stories.push({ id: t.story, ...t.content, frames: [], aliases: {} });
  return stories;
}

function storyOf(chain: readonly InFrame[], names: Names): Story | null {
  const blocks: Story['blocks'] = {};
  const links: Story['links'] = {};
  const items: Story['items'] = {};
  const order: string[] = [];
  chain.forEach(({ content }, i) => {
    // Frames further down that hold nothing of their own hold only an empty paragraph.
    if (i && content.order.every((id) => isEmpty(content.blocks[id]))) return;
    Object.assign(blocks, content.blocks);
    Object.assign(links, content.links);
    Object.assign(items, content.items);
    for (const one of content.order) order.push(one);
  });
  if (!order.length) return null;
  return {
    id: names.free('story'),
    blocks,
    order,
    links,
    frames: chain.map(({ home, place }) => ({ spread: home, item: place.item })),
    items,
    aliases: {},
  };
}

const isEmpty = (block: Story['blocks'][string] | undefined): boolean => block?.kind === 'paragraph' && !block.content.length;

/** Names of all frames in which the text of others goes on (19.117 draw:chain-next-name). */
export function chainedIn(element: XmlElement, into = new Set<string>()): Set<string> {
  for (const child of childrenOf(element)) {
    const next = child.name === 'draw:text-box' ? child.attributes['draw:chain-next-name'] : undefined;
    if (next) into.add(next);
    if (/^draw:(page|g|frame|a)$/.test(child.name)) chainedIn(child, into);
  }
  return into;
}
