import { Composer } from '../compose/compose.ts';
import type { FontSet } from '../compose/fontSet.ts';
import type { ComposedStory, Composition, TextOverflow } from '../compose/marks.ts';
import type { Edition } from '../folio/edition.ts';
import type { Folio } from '../folio/folio.ts';
import { paragraphsOf } from '../folio/traverse.ts';
import { isTakeable, newEdition, taken } from './comingBack.ts';
import type { Return, Returned } from './comingBack.ts';
import { inEdition } from './inEdition.ts';

/** Some texts of a document set by themselves, with those in frames that are anchored in them. */
export function composeStories(folio: Folio, fonts: FontSet, stories: ReadonlySet<string>): Composition {
  return composeSome(folio, fonts, inDocumentOrder(folio, stories), anchoredIn(folio));
}

/** In this order lists go on from text to text. */
const inDocumentOrder = (folio: Folio, stories: ReadonlySet<string>): string[] => folio.head.storyOrder.filter((id) => stories.has(id));

/** Texts in frames that are anchored in other texts, by those. */
function anchoredIn(folio: Folio): Map<string, string[]> {
  const inside = new Map<string, string[]>();
  for (const id of folio.head.storyOrder)
    for (const { spread } of folio.stories[id]?.frames ?? [])
      if (folio.stories[spread]) inside.set(spread, [...(inside.get(spread) ?? []), id]);
  return inside;
}

function composeSome(folio: Folio, fonts: FontSet, ids: Iterable<string>, anchored: ReadonlyMap<string, readonly string[]>): Composition {
  const stories: Folio['stories'] = {};
  const storyOrder: string[] = [];
  const take = (id: string): void => {
    const story = folio.stories[id];
    if (!story || stories[id]) return;
    stories[id] = story;
    storyOrder.push(id);
    anchored.get(id)?.forEach(take);
  };
  for (const id of ids) take(id);
  return new Composer(fonts).compose({ ...folio, head: { ...folio.head, storyOrder }, stories });
}

/** A text that is longer than its frames by more than it was. */
export interface Overflowing {
  story: string;
  now: TextOverflow;
  /** Paragraphs of which not all is seen. */
  unseen: ReadonlySet<string>;
}

/** Texts that do not fit their frames any more, though they did, or did so more. */
export function overflowing(folio: Folio, before: Pick<Composition, 'stories'>, after: Pick<Composition, 'stories'>): Overflowing[] {
  const out: Overflowing[] = [];
  for (const [id, set] of after.stories) {
    const was = before.stories.get(id)?.overflow;
    if (!set.overflow || set.overflow.characters <= (was?.characters ?? 0)) continue;
    const lines = set.frames.flatMap((f) => f.lines);
    const ends = new Map<string, boolean>();
    for (const line of lines) ends.set(line.paragraph, line.last);
    const unseen = new Set([...paragraphsOf(folio.stories[id]!)].flatMap((p) => (p.content.length && !ends.get(p.id) ? [p.id] : [])));
    out.push({ story: id, now: set.overflow, unseen });
  }
  return out;
}

/** The edition as it would be with all that can be taken; who said so and what was before does not matter for setting it. */
function trialEdition(folio: Folio, back: Return, changing: readonly Returned[]): Edition {
  const edition = folio.editions[back.language];
  const whole = back.segments.length === changing.length;
  if (!whole) return taken(edition, back, new Set(changing.map((s) => s.id)), '', '');
  const units = Object.fromEntries(back.units);
  return edition ? { ...edition, units: { ...edition.units, ...units } } : { ...newEdition(back.language), units };
}

/** So many texts are set at once: of thousands, only what is wrong with them is kept, which also takes less time than keeping all. */
const AT_ONCE = 64;

/** Those of some texts that do not fit, or want letters that no font has, as they are set. */
function setOfWrong(folio: Folio, fonts: FontSet, stories: ReadonlySet<string>): Map<string, ComposedStory> {
  const ids = inDocumentOrder(folio, stories);
  const anchored = anchoredIn(folio);
  const wrong = new Map<string, ComposedStory>();
  for (let at = 0; at < ids.length; at += AT_ONCE)
    for (const [id, set] of composeSome(folio, fonts, ids.slice(at, at + AT_ONCE), anchored).stories)
      if (set.overflow || set.missingGlyphs.length) wrong.set(id, set);
  return wrong;
}

/**
 * What only composing can tell of what comes back: texts that are longer than their frames, and signs that no font has. Sets the texts
 * that change, as they are now and as they would be.
 */
export function fitFindings(folio: Folio, back: Return, fonts: FontSet, storyOf: ReadonlyMap<string, string>): Return {
  const changing = back.segments.filter(isTakeable);
  const stories = new Set(changing.flatMap((s) => storyOf.get(s.unit) ?? []));
  if (!stories.size) return back;
  const edition = trialEdition(folio, back, changing);
  const trial = inEdition({ ...folio, editions: { ...folio.editions, [back.language]: edition } }, back.language);
  // How it was before is asked only of texts with which something is wrong now.
  const after: Pick<Composition, 'stories'> = { stories: setOfWrong(trial, fonts, stories) };
  if (!after.stories.size) return back;
  const now = folio.editions[back.language] ? inEdition(folio, back.language) : folio;
  const before = composeStories(now, fonts, new Set(after.stories.keys()));
  const found = new Map<string, Returned['findings']>();
  const say = (id: string, finding: Returned['findings'][number]): void => void found.set(id, [...(found.get(id) ?? []), finding]);
  const byStory = new Map<string, Returned[]>();
  for (const s of changing) {
    const story = storyOf.get(s.unit);
    if (story !== undefined) byStory.set(story, [...(byStory.get(story) ?? []), s]);
  }
  for (const { story, now: overflow, unseen } of overflowing(trial, before, after)) {
    const segments = byStory.get(story) ?? [];
    const over = segments.filter((s) => unseen.has(s.unit));
    for (const s of over.length ? over : segments.slice(-1))
      say(s.id, {
        fault: 'overflow',
        says: `The text is longer than its ${folio.stories[story]!.frames.length > 1 ? 'frames' : 'frame'}: ${overflow.characters} letters are not seen.`,
      });
  }
  for (const [story, set] of after.stories) {
    const was = new Set((before.stories.get(story)?.missingGlyphs ?? []).map((g) => g.character));
    const missing = new Map<string, Map<string, Set<string>>>();
    for (const { paragraph, character, family } of set.missingGlyphs) {
      if (was.has(character)) continue;
      const families = missing.get(paragraph) ?? new Map<string, Set<string>>();
      missing.set(paragraph, families.set(family, (families.get(family) ?? new Set()).add(character)));
    }
    for (const s of byStory.get(story) ?? [])
      for (const [family, characters] of missing.get(s.unit) ?? [])
        say(s.id, { fault: 'glyphs', says: `${family} has no ${[...characters].join(' ')}, and no other font at hand does.` });
  }
  return { ...back, segments: back.segments.map((s) => (found.has(s.id) ? { ...s, findings: [...s.findings, ...found.get(s.id)!] } : s)) };
}
