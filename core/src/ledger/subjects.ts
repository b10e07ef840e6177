import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import type { Spread } from '../folio/spread.ts';
import type { Inline, Story } from '../folio/story.ts';
import { isMasterInstance } from '../folio/masters.ts';
import { shownSpread } from '../folio/shownSpread.ts';
import { pageOfItem, storyOfFrame } from '../folio/traverse.ts';
import type { Subject } from './entry.ts';

/** A subject with the pages it is on and what it is about, so that judging it needs no search. */
export interface SubjectInFolio {
  subject: Subject;
  pages: string[];
  spread?: Spread;
  item?: Item;
  story?: Story;
  paragraph?: string;
  node?: Inline;
}

/** What can be asked of an item besides where it stands and how it looks. */
const CONTENT_ASPECTS: Record<Item['kind'], string[]> = {
  textFrame: [],
  shape: [],
  group: [],
  tableFrame: ['table'],
  picture: ['picture', 'alt'],
  media: ['media', 'alt'],
  switcher: ['motion'],
  veil: ['motion'],
  embed: ['embed'],
  field: ['field'],
};

const hasLook = (item: Item): boolean =>
  item.fill.type !== 'none' ||
  item.stroke !== null ||
  item.opacity !== 1 ||
  item.blend !== 'normal' ||
  item.corner !== undefined ||
  item.style !== undefined ||
  (item.kind === 'textFrame' && (item.balance || item.shrinkToFit));

/** `figures`: groups that are read as one. */
function* itemSubjects(item: Item, kind: 'item' | 'masterItem', id: string, figures: readonly string[] = []): Generator<Subject> {
  const aspects = [
    'place',
    ...(hasLook(item) ? ['look'] : []),
    ...Object.keys(item.effects).map((e) => `effect.${e}`),
    ...(item.wrap.kind === 'none' ? [] : ['wrap']),
    ...CONTENT_ASPECTS[item.kind],
    ...((item.kind === 'shape' && item.alt) || (item.kind === 'group' && figures.includes(item.id)) ? ['alt'] : []),
  ];
  for (const aspect of aspects) yield { kind, id, aspect };
  // A master item's cue is there once on every page.
  for (const cue of Object.keys(item.cues)) yield { kind: 'cue', id: kind === 'item' ? cue : `${id}/${cue}`, aspect: 'motion' };
}

/**
 * Everything about a document that an output can keep, adapt, drop or leave out, in a fixed order. The
 * ledger of every writer has exactly one entry for each: nothing can be forgotten.
 */
export function* subjectsOf(folio: Folio): Generator<SubjectInFolio> {
  const { head } = folio;
  for (const aspect of ['title', 'language', 'outline', 'order']) yield { subject: { kind: 'document', id: head.id, aspect }, pages: [] };
  if (head.opening) yield { subject: { kind: 'document', id: head.id, aspect: 'opening' }, pages: [] };
  for (const id of head.layerOrder) yield { subject: { kind: 'layer', id, aspect: 'visibility' }, pages: [] };
  for (const id of Object.keys(head.fonts).sort()) yield { subject: { kind: 'font', id, aspect: 'embedding' }, pages: [] };
  for (const id of Object.keys(head.structure.pins).sort()) yield { subject: { kind: 'pin', id, aspect: 'place' }, pages: [] };
  for (const language of Object.keys(folio.editions).sort())
    yield { subject: { kind: 'edition', id: language, aspect: 'text' }, pages: [] };
  const pageOfFrame = new Map<string, string>();
  const pagesOfMaster = new Map<string, string[]>();
  for (const spreadId of head.spreadOrder) {
    const spread = folio.spreads[spreadId];
    if (!spread) continue;
    for (const page of spread.pages) {
      const pages = [page.id];
      yield { subject: { kind: 'page', id: page.id, aspect: 'size' }, pages, spread };
      if (page.background.type !== 'none') yield { subject: { kind: 'page', id: page.id, aspect: 'background' }, pages, spread };
      if (page.transition) yield { subject: { kind: 'page', id: page.id, aspect: 'transition' }, pages, spread };
      if (page.advanceAfter !== undefined) yield { subject: { kind: 'page', id: page.id, aspect: 'advance' }, pages, spread };
      if (page.notes) yield { subject: { kind: 'page', id: page.id, aspect: 'notes' }, pages, spread };
      for (const cue of Object.keys(page.cues)) yield { subject: { kind: 'cue', id: cue, aspect: 'motion' }, pages, spread };
    }
    for (const item of Object.values(shownSpread(folio, spread).items)) {
      if (!isMasterInstance(item.id)) continue;
      const [page, id] = item.id.split('/') as [string, string];
      pagesOfMaster.set(id, [...(pagesOfMaster.get(id) ?? []), page]);
      for (const subject of itemSubjects(item, 'masterItem', item.id)) yield { subject, pages: [page], spread, item };
    }
    for (const item of Object.values(spread.items)) {
      const pages = [pageOfItem(spread, item).id];
      pageOfFrame.set(item.id, pages[0]!);
      for (const subject of itemSubjects(item, 'item', item.id, head.structure.figures)) yield { subject, pages, spread, item };
    }
  }
  const shown = storyOfFrame(folio);
  for (const storyId of head.storyOrder) {
    const story = folio.stories[storyId];
    if (story)
      yield* storySubjects(story, [
        ...new Set([...shown].filter(([, s]) => s === storyId).flatMap(([f]) => pagesOfMaster.get(f) ?? pageOfFrame.get(f) ?? [])),
      ]);
  }
}

function* storySubjects(story: Story, pages: string[]): Generator<SubjectInFolio> {
  yield { subject: { kind: 'story', id: story.id, aspect: 'fit' }, pages, story };
  for (const item of Object.values(story.items)) for (const subject of itemSubjects(item, 'item', item.id)) yield { subject, pages, story };
  for (const [id, block] of Object.entries(story.blocks)) {
    if (block.kind === 'table') {
      yield { subject: { kind: 'table', id, aspect: 'structure' }, pages, story };
      for (const cell of Object.keys(block.cells)) yield { subject: { kind: 'cell', id: cell, aspect: 'place' }, pages, story };
      continue;
    }
    const about = { pages, story, paragraph: id };
    for (const aspect of ['text', 'look', 'place', 'role', 'language']) yield { subject: { kind: 'paragraph', id, aspect }, ...about };
    const links = new Set<string>();
    for (const node of block.content) {
      if (node.type === 'span' && node.link && story.links[node.link]) links.add(node.link);
      if (node.type === 'note') yield { subject: { kind: 'note', id: node.id, aspect: 'text' }, ...about, node };
      if (node.type === 'field') yield { subject: { kind: 'field', id: node.id, aspect: 'text' }, ...about, node };
      if (node.type === 'anchor') yield { subject: { kind: 'anchor', id: node.id, aspect: 'place' }, ...about, node };
      if (node.type === 'ruby') yield { subject: { kind: 'ruby', id: node.id, aspect: 'reading' }, ...about, node };
    }
    for (const link of links) yield { subject: { kind: 'link', id: `${id}/${link}`, aspect: 'target' }, ...about };
  }
}
