import type { Folio } from '../folio/folio.ts';
import type { Story } from '../folio/story.ts';
import { AnchoredTexts } from './anchoredTexts.ts';
import { beginAgain, beginStory, finishStory, isWhole, masterChains, setFrames } from './composeStory.ts';
import type { FieldText, KeptSetting, StorySetting } from './composeStory.ts';
import { Fields } from './fields.ts';
import type { FlowFrame } from './flow.ts';
import type { FontSet } from './fontSet.ts';
import { atShare, shareThatFits } from './shrink.ts';
import { sameHead } from './sameHead.ts';
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
  /** Pages of the document are still missing: what does not fit in those there are is not counted as left over. */
  incomplete?: boolean | undefined;
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
  private readonly anchored = new AnchoredTexts();

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
      if (!(kept && sameStyles && kept.story === story && sameFrames(before!.folio, folio, story))) {
        this.settings.set(id, this.begin(folio, story, sameStyles ? kept : undefined, before?.folio));
        changed.add(id);
      }
      this.setMasterText(folio, story, sameStyles ? before!.folio : null, changed);
    }
    for (const [key, setting] of this.settings) if (!folio.stories[setting.story.id]) this.forget(key);
    // What was begun at an earlier time was set with the numbers of that time.
    for (const [key, setting] of this.settings) if (!changed.has(key)) setting.fresh = false;
    this.fields.learnLabels(this.settings.values());
    this.setAll(reach);
    if (!reach.frames) this.settleReferences(folio, reach, changed);
    const composition = this.collect(folio, !reach.incomplete);
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
    return (this.last = { folio, composition: this.collect(folio, true) }).composition;
  }

  private begin(folio: Folio, story: Story, kept: StorySetting | undefined, before: Folio | undefined): StorySetting {
    const sameChain = kept && before && kept.story.frames === story.frames && before.spreads === folio.spreads;
    // A text that was shrunk was set in other sizes than its own.
    const plain = kept?.flow.story === kept?.story;
    const earlier =
      kept && plain && before ? { setting: kept, sameSpread: (id: string) => before.spreads[id] === folio.spreads[id] } : undefined;
    return this.beginChain(folio, story, sameChain ? kept.chain : undefined, earlier);
  }

  /** A master page's text is set once for every page that shows it. */
  private setMasterText(folio: Folio, story: Story, before: Folio | null, changed: Set<string>): void {
    const chains = masterChains(folio, story);
    const wanted = new Set(chains.map((c) => masterKey(story.id, c.page)));
    for (const key of this.settings.keys()) if (key.startsWith(masterKey(story.id, '')) && !wanted.has(key)) this.forget(key);
    for (const { page, spread, chain } of chains) {
      const key = masterKey(story.id, page);
      const kept = this.settings.get(key);
      if (kept && before && kept.story === story && before.spreads[spread] === folio.spreads[spread]) continue;
      this.settings.set(key, this.beginChain(folio, story, chain));
      changed.add(key);
    }
  }

  private forget(key: string): void {
    this.settings.delete(key);
    this.composed.delete(key);
  }

  private beginChain(folio: Folio, story: Story, chain?: readonly FlowFrame[], kept?: KeptSetting): StorySetting {
    const text: FieldText = (node, frame) => this.fields.text(folio, node, frame);
    const setting = beginStory(folio, story, this.fonts, this.cache, text, chain, kept);
    if (!setting.chain[setting.chain.length - 1]?.frame.shrinkToFit) return setting;
    return this.shrunk(folio, story, text, setting.chain);
  }

  /** A text that shrinks until it fits its frames: set whole at several sizes, the largest that fits is taken. */
  private shrunk(folio: Folio, story: Story, text: FieldText, chain: readonly FlowFrame[]): StorySetting {
    const tried = new Map<number, StorySetting>();
    const set = (share: number): StorySetting => {
      const at = atShare(folio, story, share);
      const setting = beginStory(at.folio, at.story, this.fonts, this.cache, text, chain);
      setFrames(setting, chain.length);
      tried.set(share, setting);
      return setting;
    };
    const share = shareThatFits((s) => finishStory(set(s)).overflow === null);
    return { ...tried.get(share)!, story };
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
    if (![...this.settings.values()].some((s) => Fields.refersIn(s.flow.fieldKinds))) return;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const moved = this.fields.learn(folio, this.settings.values());
      if (!moved.onOtherPage.size && !moved.renumbered.size && !moved.underOtherSection.size && (round > 0 || !changed.size)) return;
      let again = false;
      for (const [id, setting] of this.settings) {
        const shrinks = setting.chain[setting.chain.length - 1]?.frame.shrinkToFit;
        const begun = beginAgain(folio, setting, moved);
        if (!begun) continue;
        this.settings.set(id, shrinks ? this.beginChain(folio, setting.story, setting.chain) : begun);
        again = true;
      }
      if (!again) return;
      this.setAll(reach);
    }
  }

  private collect(folio: Folio, complete: boolean): Composition {
    const composition: Composition = { frames: new Map(), stories: new Map() };
    for (const [key, setting] of this.settings) {
      const kept = this.composed.get(key);
      const whole = complete && isWhole(setting);
      const same = kept && kept.frames === setting.frames && whole;
      const set = same
        ? kept
        : whole
          ? finishStory(setting)
          : { story: setting.story.id, frames: setting.frames, overflow: null, missingGlyphs: [] };
      if (whole) this.composed.set(key, set);
      for (const frame of set.frames) composition.frames.set(frame.item, frame);
      // A master page's text has no frames of its own: what its pages show stands for it.
      const known = composition.stories.get(set.story);
      if (!known || !known.frames.length) composition.stories.set(set.story, set);
      else if (set.overflow && !known.overflow) composition.stories.set(set.story, { ...known, overflow: set.overflow });
    }
    this.anchored.setIn(composition, folio, (story, chain) => this.beginChain(folio, story, chain));
    return composition;
  }
}

/** The settings of a master page's text on one page; ids of stories hold no such sign. */
const masterKey = (story: string, page: string): string => `${story}@${page}`;

const sameFrames = (a: Folio, b: Folio, story: Story): boolean => story.frames.every((f) => a.spreads[f.spread] === b.spreads[f.spread]);
