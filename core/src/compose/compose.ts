import type { Folio } from '../folio/folio.ts';
import type { Story } from '../folio/story.ts';
import { beginStory, finishStory, goOnFrom, isWhole, setFrames } from './composeStory.ts';
import type { FieldText, StorySetting } from './composeStory.ts';
import { Fields } from './fields.ts';
import type { FontSet } from './fontSet.ts';
import type { ComposedStory, Composition } from './marks.ts';
import { ParagraphCache } from './prepare.ts';

/** References that still change after this many rounds are left as they are, and said. */
const MOST_ROUNDS = 3;
/** Frames set between two looks at the clock. */
const SLICE = 4;

/** How much of a document is set now; the rest follows by `goOn`. */
export interface Reach {
  /** Stories to set at all; absent: every one. */
  stories?: ReadonlySet<string> | undefined;
  /** Frames that must be set; the chains that hold them are set as far as them. Absent: every one. */
  frames?: ReadonlySet<string> | undefined;
}

/**
 * Sets a document and keeps it set. After an edit only stories whose own parts changed are set again, from the
 * first frame that can differ, from cached paragraphs, until a frame begins as it did before.
 */
export class Composer {
  private readonly cache = new ParagraphCache();
  private settings = new Map<string, StorySetting>();
  private composed = new Map<string, ComposedStory>();
  private last: { folio: Folio; composition: Composition } | null = null;
  private readonly fields = new Fields();

  constructor(private readonly fonts: FontSet) {}

  /** Sets every story, or as far as `reach` asks; what is not set yet is missing in the composition. */
  compose(folio: Folio, reach: Reach = {}): Composition {
    const before = this.last;
    const sameStyles = before !== null && sameHead(before.folio, folio);
    const changed = new Set<string>();
    for (const id of folio.head.storyOrder) {
      const story = folio.stories[id];
      if (!story || (reach.stories && !reach.stories.has(id))) continue;
      const kept = this.settings.get(id);
      if (kept && sameStyles && kept.story === story && sameFrames(before!.folio, folio, story)) continue;
      this.settings.set(id, this.begin(folio, story, sameStyles ? kept : undefined, before?.folio));
      changed.add(id);
    }
    for (const id of this.settings.keys()) if (!folio.stories[id]) this.settings.delete(id);
    this.setAll(reach);
    if (!reach.frames) this.settleReferences(folio, reach, changed);
    const composition = this.collect(folio);
    this.last = { folio, composition };
    return composition;
  }

  /** Sets more of what `compose` left, for about `budgetMs`; true once nothing is left. `clock` gives milliseconds. */
  goOn(budgetMs: number, clock: () => number): boolean {
    const until = clock() + budgetMs;
    for (const setting of this.settings.values())
      while (!isWhole(setting)) {
        // At least one slice each time, however short the time: otherwise it would never end.
        setFrames(setting, setting.frames.length + SLICE);
        if (clock() >= until) return this.isWhole;
      }
    return true;
  }

  /** Whether all that `compose` was asked for is set to its end. */
  get isWhole(): boolean {
    return [...this.settings.values()].every(isWhole);
  }

  /** The composition as far as it has been set. */
  current(): Composition {
    const { folio } = this.last!;
    return (this.last = { folio, composition: this.collect(folio) }).composition;
  }

  private begin(folio: Folio, story: Story, kept: StorySetting | undefined, before: Folio | undefined): StorySetting {
    const sameChain = kept && before && kept.story.frames === story.frames && before.spreads === folio.spreads;
    const text: FieldText = (node, frame) => this.fields.text(folio, node, frame);
    const setting = beginStory(folio, story, this.fonts, this.cache, text, sameChain ? kept.chain : undefined);
    if (kept && before) goOnFrom(setting, kept, (id) => before.spreads[id] === folio.spreads[id]);
    return setting;
  }

  private setAll(reach: Reach): void {
    for (const setting of this.settings.values()) {
      const { chain } = setting;
      let end = chain.length;
      if (reach.frames) {
        end = 0;
        chain.forEach((f, i) => reach.frames!.has(f.item) && (end = i + 1));
      }
      setFrames(setting, end);
    }
  }

  /** Cross-references show where things came to stand: set again until they agree, three times at the most. */
  private settleReferences(folio: Folio, reach: Reach, changed: ReadonlySet<string>): void {
    if (![...this.settings.values()].some((s) => this.fields.refersIn(s.story))) return;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const moved = this.fields.learn(folio, this.settings.values());
      if (!moved.size && (round > 0 || !changed.size)) return;
      let again = false;
      for (const [id, setting] of this.settings) {
        if (!this.fields.uses(setting.story, moved)) continue;
        this.settings.set(id, this.begin(folio, setting.story, undefined, undefined));
        again = true;
      }
      if (!again) return;
      this.setAll(reach);
    }
  }

  private collect(folio: Folio): Composition {
    const composition: Composition = { frames: new Map(), stories: new Map() };
    for (const id of folio.head.storyOrder) {
      const setting = this.settings.get(id);
      if (!setting) continue;
      const kept = this.composed.get(id);
      const same = kept && kept.frames === setting.frames && isWhole(setting);
      const set = same
        ? kept
        : isWhole(setting)
          ? finishStory(setting)
          : { story: id, frames: setting.frames, overflow: null, missingGlyphs: [] };
      if (isWhole(setting)) this.composed.set(id, set);
      composition.stories.set(id, set);
      for (const frame of set.frames) composition.frames.set(frame.item, frame);
    }
    return composition;
  }
}

const sameHead = (a: Folio, b: Folio): boolean =>
  a.head.paragraphStyles === b.head.paragraphStyles &&
  a.head.characterStyles === b.head.characterStyles &&
  a.head.listStyles === b.head.listStyles &&
  a.head.tableStyles === b.head.tableStyles &&
  a.head.cellStyles === b.head.cellStyles &&
  a.head.fallbacks === b.head.fallbacks &&
  a.head.baselineGrid === b.head.baselineGrid &&
  a.head.metadata === b.head.metadata &&
  a.head.layers === b.head.layers &&
  a.head.spreadOrder === b.head.spreadOrder;

const sameFrames = (a: Folio, b: Folio, story: Story): boolean => story.frames.every((f) => a.spreads[f.spread] === b.spreads[f.spread]);
