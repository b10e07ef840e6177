import type { Folio } from '../folio/folio.ts';
import { itemBounds, paragraphsOf } from '../folio/traverse.ts';
import { cellsInOrder } from '../folio/tableCells.ts';
import { readText } from '../folio/text.ts';
import { resolveParagraphStyle, resolveSpan } from '../folio/resolve.ts';
import type { Paragraph, Story } from '../folio/story.ts';
import type { CharacterProperties, ParagraphProperties, Role } from '../folio/styles.ts';
import { distance } from './pageOrder.ts';

/** What a style may mean, how sure that is (0 to 1), and the facts that speak for it. */
export interface RoleSuggestion {
  kind: 'paragraph' | 'character';
  style: string;
  role: Role;
  confidence: number;
  reasons: string[];
}

/** Below this a person is asked to decide. */
export const SURE = 0.6;

/** What a document’s texts tell of one paragraph style. */
interface StyleFacts {
  style: string;
  paragraph: ParagraphProperties;
  character: CharacterProperties;
  paragraphs: number;
  characters: number;
  /** Paragraphs that end like a sentence. */
  sentences: number;
  /** Paragraphs followed by one of another style. */
  leads: number;
  /** Paragraphs after which their text ends. */
  ends: number;
  /** Paragraphs that begin with a number or a word and a number. */
  numbered: number;
  inCells: number;
  inHeaderCells: number;
  inNotes: number;
  onMasters: number;
  nearPictures: number;
  /** Its numbers come with a word: “Figure 3”. */
  captions: boolean;
}

const plain = (element: Role['element'], more: Partial<Role> = {}): Role => ({ element, startsSection: false, leaveOut: false, ...more });
const MONOSPACED = /mono|courier|typewriter|consol/i;
const NUMBERED = /^\s*(?:\p{L}+\.?\s+)?\d+[.:)]?\s|^\s*[IVX]+[.:)]\s/u;

/**
 * What every style of a document may mean, from how its text looks and where it stands: size and weight against the text
 * that most of it is set in, length, what follows, numbers, tables, notes, pictures close by (common practice of the trade).
 */
export function suggestRoles(folio: Folio): RoleSuggestion[] {
  const facts = factsOf(folio);
  const body = bodyOf(facts);
  if (!body) return [];
  const headings = headingLevels(facts, body);
  return [...facts.map((f) => paragraphSuggestion(f, body, headings)), ...characterSuggestions(folio, body)];
}

/** The style of the text itself: the one with the most characters, headings and captions being short. */
const bodyOf = (facts: readonly StyleFacts[]): StyleFacts | undefined =>
  facts
    .filter((f) => f.onMasters < f.paragraphs)
    .reduce<StyleFacts | undefined>((a, b) => (a && a.characters >= b.characters ? a : b), undefined);

const average = (f: StyleFacts): number => f.characters / Math.max(1, f.paragraphs);
const share = (part: number, f: StyleFacts): number => part / Math.max(1, f.paragraphs);

/** How strongly a style stands out from the text as a heading does: larger, heavier, in capitals. */
function prominence(f: StyleFacts, body: StyleFacts): number {
  const heavier = f.character.fontWeight - body.character.fontWeight >= 200 ? 0.25 : 0;
  const capitals = f.character.capitals === 'normal' ? 0 : 0.1;
  return f.character.size / body.character.size + heavier + capitals;
}

/** Short, prominent, without a full stop, and followed by something else. */
function headingLikeness(f: StyleFacts, body: StyleFacts): number {
  if (f === body || average(f) > 140 || f.onMasters === f.paragraphs || f.inCells > f.paragraphs / 2 || f.inNotes) return 0;
  const stands = prominence(f, body);
  if (stands < 1.12 || f.character.size < body.character.size) return 0;
  let sure = 0.35 + Math.min(0.3, (stands - 1) * 0.5);
  if (share(f.sentences, f) < 0.3) sure += 0.15;
  if (share(f.leads, f) > 0.6) sure += 0.15;
  if (average(f) < 70) sure += 0.05;
  // A heading has something below it; only a title is large enough to stand in a frame of its own.
  if (share(f.ends, f) > 0.6 && stands < 2) sure -= 0.3;
  // What stands once only is a title, or a flourish: one cannot tell.
  if (f.paragraphs === 1) sure -= 0.2;
  return Math.min(0.98, sure);
}

/** Levels of headings: the most prominent is the first, what looks alike shares one; beside a title of the whole, chapters are of the first as well. */
function headingLevels(facts: readonly StyleFacts[], body: StyleFacts): Map<StyleFacts, number> {
  const found = facts.filter((f) => headingLikeness(f, body) >= SURE).sort((a, b) => prominence(b, body) - prominence(a, body));
  const levels = new Map<StyleFacts, number>();
  let level = 0;
  let last = Infinity;
  for (const f of found) {
    const stands = prominence(f, body);
    const isTitle = f === found[0] && f.paragraphs === 1 && found.length > 1;
    if (last - stands > 0.05) level = Math.min(6, level + 1);
    last = stands;
    if (isTitle) level = 0;
    levels.set(f, Math.max(1, level));
  }
  return levels;
}

function paragraphSuggestion(f: StyleFacts, body: StyleFacts, headings: ReadonlyMap<StyleFacts, number>): RoleSuggestion {
  const say = (role: Role, confidence: number, ...reasons: string[]): RoleSuggestion => ({
    kind: 'paragraph',
    style: f.style,
    role,
    confidence,
    reasons,
  });
  const times = `${Math.round((f.character.size / body.character.size) * 100)} % of the size of the text`;
  if (!f.paragraphs) return say(plain('p'), 0.3, 'no text is set in it');
  if (f.onMasters === f.paragraphs)
    return say(plain('p', { leaveOut: true }), 0.9, 'it stands on master pages only, and repeats from page to page');
  if (share(f.inHeaderCells, f) > 0.7) return say(plain('th'), 0.95, 'it stands in cells that head a table');
  if (share(f.inCells, f) > 0.7) return say(plain('td'), 0.9, 'it stands in the cells of tables');
  if (share(f.inNotes, f) > 0.7) return say(plain('p', { class: 'note' }), 0.9, 'it stands in notes');
  if (f.captions && f.character.size <= body.character.size * 1.1)
    return say(plain('figcaption'), 0.9, 'its numbers are those of figures or tables');
  const level = headings.get(f);
  if (level !== undefined) {
    const reasons = [times, 'short, and followed by text of another style'];
    if (f.character.fontWeight - body.character.fontWeight >= 200) reasons.push('heavier than the text');
    if (share(f.numbered, f) > 0.6) reasons.push('it is numbered');
    return say(plain(`h${level}` as Role['element'], { startsSection: level === 1 }), headingLikeness(f, body), ...reasons);
  }
  const small = f.character.size <= body.character.size * 0.92;
  if (share(f.nearPictures, f) > 0.5 && average(f) < 240 && f !== body)
    return say(plain('figcaption'), small ? 0.85 : 0.65, 'it stands at a picture', ...(small ? [times] : []));
  if (f.paragraph.list && f !== body) return say(plain('li'), 0.9, 'it has the numbers or bullets of a list');
  if (MONOSPACED.test(f.character.fontFamily)) return say(plain('pre'), 0.75, 'all its letters are of one width');
  if (f === body) return say(plain('p'), 0.97, 'most of the text is set in it');
  const setIn = f.paragraph.startIndent > body.paragraph.startIndent + 6 && f.paragraph.endIndent > body.paragraph.endIndent + 6;
  if (setIn) return say(plain('blockquote'), 0.7, 'it is set in on both sides');
  if (average(f) > 120) return say(plain('p'), 0.8, 'it is set as running text');
  if (small) return say(plain('p', { class: 'small' }), 0.55, times, 'short');
  return say(plain('p'), prominence(f, body) > 1.05 ? 0.45 : 0.65, times);
}

/** Whether a label counts with words before its number, as “Figure 3” does. */
const countsWords = (label: string): boolean => /\p{L}{3}/u.test(label.slice(0, Math.max(0, label.lastIndexOf('{n}'))));

function factsOf(folio: Folio): StyleFacts[] {
  const facts = new Map<string, StyleFacts>();
  for (const style of Object.values(folio.head.paragraphStyles)) {
    const look = resolveParagraphStyle(folio.head, style.id);
    const { list } = look.paragraph;
    facts.set(style.id, {
      style: style.id,
      ...look,
      captions: !!list && countsWords(folio.head.listStyles[list.style]?.levels[list.level]?.text ?? ''),
      paragraphs: 0,
      characters: 0,
      sentences: 0,
      leads: 0,
      ends: 0,
      numbered: 0,
      inCells: 0,
      inHeaderCells: 0,
      inNotes: 0,
      onMasters: 0,
      nearPictures: 0,
    });
  }
  const pictures = picturesBySpread(folio);
  for (const story of Object.values(folio.stories)) {
    const { cells, headerCells, notes } = placesIn(story);
    const onMaster = story.frames.length > 0 && story.frames.every((f) => folio.head.masterPages[f.spread]);
    const near = isNearPicture(folio, story, pictures);
    const all = [...paragraphsOf(story)];
    all.forEach((p, i) => {
      const f = facts.get(p.style);
      const text = readText(p).trim();
      if (!f || !(text || p.content.length)) return;
      f.paragraphs++;
      f.characters += text.length;
      if (/[.!?…。]["”’)]?$/.test(text)) f.sentences++;
      if (NUMBERED.test(text)) f.numbered++;
      const next = nextWithText(all, i);
      if (!next) f.ends++;
      if (next?.style !== p.style) f.leads++;
      if (headerCells.has(p.id)) f.inHeaderCells++;
      else if (cells.has(p.id)) f.inCells++;
      if (notes.has(p.id)) f.inNotes++;
      if (onMaster) f.onMasters++;
      if (near) f.nearPictures++;
    });
  }
  return [...facts.values()];
}

const nextWithText = (all: readonly Paragraph[], at: number): Paragraph | undefined =>
  all.slice(at + 1, at + 6).find((p) => p.content.length > 0);

/** Which paragraphs of a story stand in cells, in cells that head a table, in notes. */
function placesIn(story: Story): { cells: Set<string>; headerCells: Set<string>; notes: Set<string> } {
  const out = { cells: new Set<string>(), headerCells: new Set<string>(), notes: new Set<string>() };
  for (const block of Object.values(story.blocks))
    if (block.kind === 'table')
      for (const cell of cellsInOrder(block))
        for (const id of cell.order) (cell.header || cell.row < block.headerRows ? out.headerCells : out.cells).add(id);
    else for (const node of block.content) if (node.type === 'note') node.order.forEach((id) => out.notes.add(id));
  return out;
}

const picturesBySpread = (folio: Folio): Map<string, ReturnType<typeof itemBounds>[]> =>
  new Map(
    Object.values(folio.spreads).map((s) => [
      s.id,
      Object.values(s.items).flatMap((i) => (i.kind === 'picture' || i.kind === 'media' ? [itemBounds(s.items, i)] : [])),
    ]),
  );

/** A text of one small frame at a picture’s edge, or one in a frame that is anchored beside one. */
function isNearPicture(folio: Folio, story: Story, pictures: ReadonlyMap<string, readonly ReturnType<typeof itemBounds>[]>): boolean {
  const [frame, ...more] = story.frames;
  if (!frame || more.length || story.order.length > 3) return false;
  const spread = folio.spreads[frame.spread];
  const item = spread?.items[frame.item];
  if (!spread || !item) return false;
  const box = itemBounds(spread.items, item);
  return (pictures.get(spread.id) ?? []).some((p) => distance(p, box) < 24 && box.height < p.height);
}

function characterSuggestions(folio: Folio, body: StyleFacts): RoleSuggestion[] {
  const drawn = drawnWith(folio);
  return Object.values(folio.head.characterStyles).map((style) => {
    const look = resolveSpan(folio.head, body.character, { style: style.id });
    const say = (element: Role['element'], confidence: number, reason: string): RoleSuggestion => ({
      kind: 'character',
      style: style.id,
      role: plain(element),
      confidence,
      reasons: [reason],
    });
    if (drawn.has(style.id)) return say('span', 0.9, 'initials, numbers or bullets are set in it');
    if (look.position === 'superscript') return say('sup', 0.85, 'it is raised');
    if (look.position === 'subscript') return say('sub', 0.85, 'it is lowered');
    if (MONOSPACED.test(look.fontFamily) && look.fontFamily !== body.character.fontFamily)
      return say('code', 0.75, 'all its letters are of one width');
    if (look.fontWeight - body.character.fontWeight >= 200) return say('strong', 0.85, 'it is heavier than the text around it');
    if (look.fontStyle === 'italic' && body.character.fontStyle !== 'italic') return say('em', 0.85, 'it is italic in upright text');
    return say('span', 0.5, 'it differs from the text in nothing that has a meaning of its own');
  });
}

/** Character styles that initials, numbers and bullets have. */
const drawnWith = ({ head }: Folio): Set<string | undefined> =>
  new Set([
    ...Object.values(head.paragraphStyles).map((s) => s.paragraph.dropCapital?.style),
    ...Object.values(head.listStyles).flatMap((l) => l.levels.map((level) => level.character)),
  ]);
