import type { Folio } from '../folio/folio.ts';
import type { Story } from '../folio/story.ts';
import { countWords } from '../folio/text.ts';
import { instanceId, showsMaster } from '../folio/masters.ts';
import { pageOfItem, pagesOf } from '../folio/traverse.ts';
import { cellsInOrder } from '../folio/tableCells.ts';
import { factsOf } from './blockFacts.ts';
import type { FieldKind } from './blockFacts.ts';
import { columnsOf } from './columnFill.ts';
import { fillFrame, STORY_START } from './flow.ts';
import type { Flow, FlowFrame, FlowState } from './flow.ts';
import type { FontSet } from './fontSet.ts';
import { listLabels } from './listLabels.ts';
import type { ListLabel } from './listLabels.ts';
import type { ComposedFrame, ComposedStory, TextOverflow } from './marks.ts';
import { noteNumbers } from './notes.ts';
import type { Moved } from './fields.ts';
import { changeOf, innerBlocks } from './storyChange.ts';
import type { StoryChange } from './storyChange.ts';
import { linesOf, plainRoom } from './prepare.ts';
import type { ParagraphCache, ParagraphTexts } from './prepare.ts';
import { findNote, linesOfAll, preparedIn } from './preparedIn.ts';

/** A story set so far, with the states its frames begin with: setting goes on from any of them. */
export interface StorySetting {
  story: Story;
  chain: readonly FlowFrame[];
  /** `starts[i]` is the state frame i begins with; one more at the end, once all frames are filled. */
  starts: FlowState[];
  frames: ComposedFrame[];
  /** `seen[i]` is the last block that had a say in frame i. */
  seen: number[];
  flow: Flow;
  /** An earlier setting whose frames are taken over as soon as one begins as it did there. */
  earlier: Earlier | null;
  /** What is left over at the end, once it has been worked out. */
  overflow: TextOverflow | null | undefined;
  /** Begun at this time of asking, and none of it taken over from an earlier setting. */
  fresh: boolean;
}

/** What an earlier setting of the same story has in common with this one. */
interface Earlier {
  setting: StorySetting;
  /** Blocks from the end that are the same. */
  tail: number;
  /** Frames that must be set again, though they begin as they did. */
  stale: ReadonlySet<number>;
}
const NONE: ReadonlySet<number> = new Set();
const NO_LABELS: ReadonlySet<string> = new Set();

export type FieldText = (node: Parameters<ParagraphTexts['field']>[0], frame: FlowFrame | null) => string;

/** The chain of a story's text frames, with the page each belongs to. */
function chainOf(folio: Folio, story: Story): readonly FlowFrame[] {
  const chain: FlowFrame[] = [];
  for (const f of story.frames) {
    const spread = folio.spreads[f.spread];
    const item = spread?.items[f.item];
    if (item?.kind !== 'textFrame') continue;
    const page = pageOfItem(spread!, item).id;
    chain.push({ ...f, frame: item, page, startsPage: chain[chain.length - 1]?.page !== page });
  }
  return chain;
}

/** The chains of a master page's text, one for each page that shows it. */
export function masterChains(folio: Folio, story: Story): { page: string; spread: string; chain: readonly FlowFrame[] }[] {
  const masters = story.frames.filter((f) => folio.head.masterPages[f.spread]);
  if (!masters.length) return [];
  return pagesOf(folio).flatMap(({ page, spread }) => {
    const chain = masters.flatMap((f): FlowFrame[] => {
      const item = showsMaster(folio, page, f.spread) ? instanceId(page.id, f.item) : '';
      const frame = spread.items[item];
      return frame?.kind === 'textFrame' ? [{ spread: spread.id, item, frame, page: page.id, startsPage: true }] : [];
    });
    return chain.length ? [{ page: page.id, spread: spread.id, chain }] : [];
  });
}

/** An earlier setting of a story with the same styles, whose work a new one may take over. */
export interface KeptSetting {
  setting: StorySetting;
  sameSpread: (id: string) => boolean;
}

/**
 * Prepares a story for setting: numbers its lists and notes, and puts its endnotes at its end. What an edit
 * cannot have changed is taken from an earlier setting, frames and all.
 */
export function beginStory(
  folio: Folio,
  story: Story,
  fonts: FontSet,
  cache: ParagraphCache,
  field: FieldText,
  chain = chainOf(folio, story),
  kept?: KeptSetting,
): StorySetting {
  const old = kept?.setting;
  const change = old && changeOf(folio.head, old.story, story, old.flow.inner);
  const counts = old && change && !change.counted ? countsAfter(old, story) : countsOf(folio, story);
  const flow: Flow = { folio, story, fonts, cache, field, missing: new Map(), ...counts };
  const setting: StorySetting = {
    story,
    chain,
    starts: [STORY_START],
    frames: [],
    seen: [],
    flow,
    earlier: null,
    overflow: undefined,
    fresh: true,
  };
  // Items anchored in a text take room in it: where they changed, all of it is set anew.
  if (kept && change && old!.story.items === story.items) goOnFrom(setting, kept, change);
  return setting;
}

type Counts = Pick<Flow, 'order' | 'labels' | 'noteNumbers' | 'inner' | 'fieldKinds'>;

function countsOf(folio: Folio, story: Story): Counts {
  const { numbers, endnotes } = noteNumbers(story, story.order);
  const order = endnotes.length ? [...story.order, ...endnotes.flatMap((n) => n.order)] : story.order;
  const labels = new Map<string, ListLabel | { text: string }>(listLabels(folio.head, story, order));
  if (numbers.size)
    for (const block of Object.values(story.blocks))
      for (const node of factsOf(block).notes)
        if (node.order[0] !== undefined) labels.set(node.order[0], { text: numbers.get(node.id) ?? '' });
  const fieldKinds = new Set<FieldKind>();
  for (const block of Object.values(story.blocks)) for (const kind of factsOf(block).fields) fieldKinds.add(kind);
  return { order, labels, noteNumbers: numbers, inner: innerBlocks(story, story.order), fieldKinds };
}

/** After an edit of nothing that is counted only the order can have changed. */
function countsAfter({ story: before, flow }: StorySetting, story: Story): Counts {
  const { labels, noteNumbers, inner, fieldKinds } = flow;
  const order = story.order === before.order ? flow.order : [...story.order, ...flow.order.slice(before.order.length)];
  return { order, labels, noteNumbers, inner, fieldKinds };
}

/** Sets frames up to, but not including, number `end`; more where an earlier setting gives them for nothing. */
export function setFrames(setting: StorySetting, end: number): void {
  while (setting.frames.length < Math.min(end, setting.chain.length)) {
    const i = setting.frames.length;
    const { composed, next, seen } = fillFrame(setting.flow, setting.chain[i]!, setting.starts[i]!);
    setting.frames.push(composed);
    setting.starts.push(next);
    setting.seen.push(seen);
    if (setting.earlier) takeOverRest(setting, setting.earlier);
  }
}

const sameState = (a: FlowState, b: FlowState): boolean =>
  a.unit === b.unit && a.broken === b.broken && a.skip === b.skip && sameNotes(a.notes, b.notes);
/** Notes are the same only where none goes on: what is left of one depends on how it was set. */
const sameNotes = (a: FlowState['notes'], b: FlowState['notes']): boolean => !a && !b;

/**
 * Where the next frame begins as it did before, with nothing but unchanged text to come, what follows is as it was: up
 * to the next frame that is stale for another reason.
 */
function takeOverRest(setting: StorySetting, { setting: old, tail, stale }: Earlier): void {
  const i = setting.frames.length;
  const [now, then] = [setting.starts[i]!, old.starts[i]];
  const shift = setting.flow.order.length - old.flow.order.length;
  if (!then || now.block !== then.block + shift || !sameState(now, then) || now.block < setting.flow.order.length - tail) return;
  const moved = (block: number): number => block + shift;
  let k = i;
  for (; k < old.frames.length && !stale.has(k); k++) {
    setting.frames.push(old.frames[k]!);
    setting.seen.push(moved(old.seen[k]!));
    setting.starts.push(shift ? { ...old.starts[k + 1]!, block: moved(old.starts[k + 1]!.block) } : old.starts[k + 1]!);
  }
  for (const [id, glyphs] of old.flow.missing) if (!setting.flow.missing.has(id)) setting.flow.missing.set(id, glyphs);
  if (k < old.frames.length) return;
  if (!stale.size) setting.overflow = old.overflow;
  setting.earlier = null;
}

/**
 * A story to be set again because fields show something else by now; frames that show none of it are taken over as long
 * as they begin as they did. Null where none does.
 */
export function beginAgain(folio: Folio, old: StorySetting, moved: Moved): StorySetting | null {
  // What was set from its beginning was set with the numbers that paragraphs have by now.
  const stale = staleFrames(old, old.fresh ? { ...moved, renumbered: NO_LABELS } : moved);
  if (!stale.size) return null;
  const setting: StorySetting = {
    ...old,
    starts: [STORY_START],
    frames: [],
    seen: [],
    flow: { ...old.flow, folio },
    earlier: { setting: old, tail: old.flow.order.length, stale },
    overflow: undefined,
    fresh: false,
  };
  takeOverRest(setting, setting.earlier!);
  return setting;
}

/** Frames with blocks that refer to something that moved, or that name the section on a page where another runs now. */
function staleFrames({ flow, chain, frames, starts, seen }: StorySetting, moved: Moved): Set<number> {
  const owners = new Map(flow.inner.map((b) => [b.id, b.owner]));
  const referring = new Set<string>();
  const naming = new Set<string>();
  for (const [id, block] of Object.entries(flow.story.blocks)) {
    const { fields, pagesOf, numbersOf } = factsOf(block);
    // An endnote stands in the order itself, a footnote and a cell with what holds them.
    const holders = [id, owners.get(id) ?? id];
    if (pagesOf.some((t) => moved.onOtherPage.has(t)) || numbersOf.some((t) => moved.renumbered.has(t)))
      for (const h of holders) referring.add(h);
    if (fields.includes('sectionName')) for (const h of holders) naming.add(h);
  }
  const stale = new Set<number>();
  if (!referring.size && !(naming.size && moved.underOtherSection.size)) return stale;
  for (let i = 0; i < frames.length; i++)
    for (let b = starts[i]!.block; b <= seen[i]! && b < flow.order.length; b++) {
      const id = flow.order[b]!;
      if (referring.has(id) || (naming.has(id) && moved.underOtherSection.has(chain[i]!.page))) stale.add(i);
    }
  return stale;
}

/** Frames before the first change are kept, those after the last are once they agree. */
function goOnFrom(setting: StorySetting, { setting: old, sameSpread }: KeptSetting, change: StoryChange): void {
  const { flow, chain } = setting;
  if (old.chain.length !== chain.length || !sameTexts(flow.noteNumbers, old.flow.noteNumbers)) return;
  if (chain !== old.chain && !chain.every((f, i) => old.chain[i]!.item === f.item && sameSpread(f.spread))) return;
  const endnotes = flow.order.length - setting.story.order.length;
  let { head, tail } = change;
  // Endnotes stand after the text; where something counted changed they may have too.
  if (endnotes) tail = change.counted ? 0 : tail + endnotes;
  if (flow.labels !== old.flow.labels) {
    // Numbers of paragraphs that did not change themselves may have: those count as changed.
    const [order, before] = [flow.order, old.flow.order];
    const label = (f: Flow, id: string | undefined): string | undefined => (id === undefined ? undefined : f.labels.get(id)?.text);
    let i = 0;
    while (i < head && label(flow, order[i]) === label(old.flow, before[i])) i++;
    head = i;
    let k = 0;
    while (k < tail && label(flow, order[order.length - 1 - k]) === label(old.flow, before[before.length - 1 - k])) k++;
    tail = k;
  }
  let kept = 0;
  while (kept < old.frames.length && old.seen[kept]! < head) kept++;
  setting.frames = old.frames.slice(0, kept);
  setting.starts = old.starts.slice(0, kept + 1);
  setting.seen = old.seen.slice(0, kept);
  setting.earlier = { setting: old, tail, stale: NONE };
  setting.fresh = false;
  // What it took over itself is all that is needed of it: chains of settings must not grow.
  old.earlier = null;
}

const sameTexts = (a: ReadonlyMap<string, string>, b: ReadonlyMap<string, string>): boolean => {
  if (a === b) return true;
  if (a.size !== b.size) return false;
  for (const [id, text] of a) if (b.get(id) !== text) return false;
  return true;
};

export const isWhole = (setting: StorySetting): boolean => setting.frames.length >= setting.chain.length;

/** What a story came to, once all its frames are set. */
export function finishStory(setting: StorySetting): ComposedStory {
  const { story, frames, flow } = setting;
  if (setting.overflow === undefined) setting.overflow = overflowOf(setting);
  return { story: story.id, frames, overflow: setting.overflow, missingGlyphs: [...flow.missing.values()].flat() };
}

/** What is left of the text after the last frame. */
function overflowOf(setting: StorySetting): TextOverflow | null {
  const { flow, chain } = setting;
  const end = setting.starts[setting.starts.length - 1]!;
  const { notes } = end;
  if (end.block >= flow.order.length && !notes) return null;
  // A master page's text is set on the pages that show it; where none does, nothing of it is missing anywhere.
  if (!chain.length && setting.story.frames.some((f) => flow.folio.head.masterPages[f.spread])) return null;
  const last = chain[chain.length - 1];
  const room = plainRoom(last ? columnsOf(last.frame)[0]!.width : 0);
  const out = { lines: 0, characters: 0, words: 0 };
  const count = (id: string, unit: number): void => {
    const block = flow.story.blocks[id];
    if (block?.kind === 'table') {
      for (const cell of cellsInOrder(block)) if (cell.row >= block.headerRows + unit) for (const p of cell.order) count(p, 0);
      return;
    }
    if (block?.kind !== 'paragraph') return;
    const prepared = preparedIn(flow, block, null);
    const { shaped } = prepared.shaping();
    const rest = shaped.text.slice(Math.max(unit, shaped.labelEnd));
    out.characters += rest.length;
    out.words += countWords(rest, prepared.base.language);
    // Far more lines than a frame holds are counted by their width, not broken one by one.
    out.lines +=
      rest.length > LONG
        ? Math.ceil(shaped.sums.edge(shaped.text.length) / Math.max(1, room.slot(0).width))
        : linesOf(prepared, unit, room).countFrom(0, Infinity);
  };
  flow.order.slice(end.block).forEach((id, i) => count(id, i === 0 ? end.unit : 0));
  for (const { id, from } of notes ?? []) countNote(flow, id, from, room.slot(0).width, out);
  // Empty lines at the end are no loss.
  return out.characters ? out : null;
}
const LONG = 20_000;

/** Adds what is left over of a note that was too long for the last column. */
function countNote(flow: Flow, id: string, from: number, width: number, out: TextOverflow): void {
  const order = findNote(flow, id)?.note.order ?? [];
  const lines = linesOfAll(flow, order, plainRoom(width), (p) => preparedIn(flow, p, null));
  const left = lines.slice(from).map((l) => l.runs.map((r) => r.text).join(''));
  out.lines += left.length;
  out.characters += left.reduce((n, t) => n + t.length, 0);
  out.words += countWords(left.join(' '), flow.folio.head.metadata.language);
}
