import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import type { Destination } from '../folio/motion.ts';
import type { Spread } from '../folio/spread.ts';
import type { Paragraph, Story } from '../folio/story.ts';
import { paragraphStays, resolveParagraph, styleChain } from '../folio/resolve.ts';
import { isOnHiddenLayer, pageOfItem, pagesOf, paragraphsOf, placeOfPage, storyOfFrame } from '../folio/traverse.ts';
import type { PagePlace } from '../folio/traverse.ts';
import { masterChain } from '../folio/masters.ts';
import type { Composition } from '../compose/marks.ts';
import { readingItems } from '../structure/readingOrder.ts';
import { codesOf } from './codes.ts';
import type { CodeContext, Coded } from './codes.ts';
import { plainText } from './unit.ts';
import type { Unit, UnitKind } from './unit.ts';

/** Every text of a document that can be translated, in the order in which it is read. */
export function unitsOf(folio: Folio, composition?: Composition): Unit[] {
  return new Units(folio, composition).all();
}

/** Codes are named by where links lead and how words look in a story. */
const codeContext = (folio: Folio, story: Story): CodeContext => ({
  head: folio.head,
  linkTo: (id) => leadsTo(folio, story.links[id]?.destination),
});

const coded = new WeakMap<Paragraph, { styles: object[]; text: Coded }>();

/** A paragraph’s text with codes; worked out once as long as it, the styles and the links of its text stay the same. */
export function codedParagraph(folio: Folio, story: Story, paragraph: Paragraph): Coded {
  const styles = [folio.head.paragraphStyles, folio.head.characterStyles, story.links];
  const known = coded.get(paragraph);
  if (known?.styles.every((s, i) => s === styles[i])) return known.text;
  const text = codesOf(paragraph, codeContext(folio, story));
  coded.set(paragraph, { styles, text });
  return text;
}

function leadsTo(folio: Folio, destination: Destination | undefined): string {
  if (!destination) return 'nowhere';
  switch (destination.to) {
    case 'address':
      return destination.href;
    case 'page': {
      const place = pagesOf(folio).find((p) => p.page.id === destination.page);
      return place ? `page ${place.number}` : 'a page';
    }
    case 'paragraph':
      return 'another place in the text';
    default:
      return `the ${destination.to} page`;
  }
}

class Units {
  private readonly out: Unit[] = [];
  private readonly done = new Set<string>();
  private readonly pagesByParagraph = new Map<string, Set<number>>();
  private readonly speakersNotes: ReadonlySet<string>;

  constructor(
    private readonly folio: Folio,
    private readonly composition: Composition | undefined,
  ) {
    this.speakersNotes = new Set(Object.values(folio.spreads).flatMap((s) => s.pages.flatMap((p) => p.notes ?? [])));
    if (composition) this.learnPages(composition);
  }

  all(): Unit[] {
    const { folio } = this;
    this.metadata();
    const frames = storyOfFrame(folio);
    const pages = pagesOf(folio);
    for (const id of folio.head.spreadOrder) {
      const spread = folio.spreads[id];
      if (!spread) continue;
      const items = readingItems(folio, spread);
      const known = new Set(items.map((i) => i.id));
      for (const item of [...items, ...Object.values(spread.items).filter((i) => !known.has(i.id))]) {
        this.item(item, this.pageOf(spread, item));
        const story = folio.stories[frames.get(item.id) ?? ''];
        if (story) this.story(story);
      }
      for (const page of spread.pages) {
        const notes = folio.stories[page.notes ?? ''];
        if (notes) this.story(notes, [placeOfPage(folio, page.id)?.number ?? 0]);
      }
    }
    for (const master of Object.values(folio.head.masterPages)) {
      const on = this.pagesWith(pages, master.id);
      for (const item of Object.values(master.items)) {
        this.item(item, on, 'master');
        const story = folio.stories[frames.get(item.id) ?? ''];
        if (story) this.story(story, on);
      }
    }
    for (const id of folio.head.storyOrder) if (folio.stories[id]) this.story(folio.stories[id]);
    return this.out;
  }

  /** The number of the page that an item is on. */
  private pageOf(spread: Spread, item: Item): number[] {
    const place = placeOfPage(this.folio, pageOfItem(spread, item).id);
    return place ? [place.number] : [];
  }

  private pagesWith(pages: readonly PagePlace[], master: string): number[] {
    return pages.flatMap((p) =>
      p.page.showMaster && masterChain(this.folio, p.page.master).some((m) => m.id === master) ? [p.number] : [],
    );
  }

  private learnPages(composition: Composition): void {
    const pages = pagesOf(this.folio);
    for (const { spread } of pages)
      for (const item of Object.values(spread.items)) {
        const frame = composition.frames.get(item.id);
        if (!frame) continue;
        const [number] = this.pageOf(spread, item);
        if (number === undefined) continue;
        for (const { paragraph } of frame.lines) {
          const on = this.pagesByParagraph.get(paragraph) ?? new Set();
          this.pagesByParagraph.set(paragraph, on.add(number));
        }
      }
  }

  private add(
    id: string,
    kind: UnitKind,
    text: string | undefined,
    says: string,
    pages: readonly number[],
    hidden = false,
    story?: string,
  ): void {
    if (!text?.trim()) return;
    const { language } = this.folio.head.metadata;
    this.out.push({ id, kind, language, pages, says, hidden, ...(story !== undefined && { story }), ...plainText(text) });
  }

  private metadata(): void {
    const { title, description, subjects, rights } = this.folio.head.metadata;
    this.add('meta:title', 'metadata', title, 'title of the document', []);
    this.add('meta:description', 'metadata', description, 'description of the document', []);
    subjects.forEach((subject, i) => this.add(`meta:subject:${i + 1}`, 'metadata', subject, 'keyword of the document', []));
    this.add('meta:rights', 'metadata', rights, 'note on rights', []);
    for (const [paragraph, entry] of Object.entries(this.folio.head.structure.outline))
      this.add(`outline:${paragraph}`, 'outline', entry.text, 'heading as lists of contents have it', []);
  }

  /** What an item says beside the texts in its frames. */
  private item(item: Item, pages: readonly number[], as?: 'master'): void {
    const hidden = isOnHiddenLayer(this.folio, item);
    const { id } = item;
    const name: Record<Item['kind'], string> = {
      textFrame: 'a text frame',
      picture: 'a picture',
      shape: 'a drawing',
      group: 'a group',
      tableFrame: 'a table',
      media: 'a film or sound',
      switcher: 'a switcher',
      veil: 'a veil',
      embed: 'web content',
      field: 'a form field',
    };
    const say = (prefix: string, kind: UnitKind, text: string | undefined, says: string): void =>
      this.add(`${prefix}:${id}`, as === 'master' && kind === 'alt' ? 'master' : kind, text, says, pages, hidden);
    say('alt', 'alt', item.alt, `alt text of ${name[item.kind]}`);
    if (item.kind === 'media') say('transcript', 'caption', item.transcript, 'words of a film or sound');
    if (item.kind === 'veil') say('action', 'part', item.action, 'what readers are told to do with a veil');
    if (item.kind === 'switcher')
      for (const card of item.cards) this.add(`card:${card.id}`, 'part', card.name, 'name of a card', pages, hidden);
    if (item.kind === 'field') {
      say('label', 'fieldLabel', item.label, 'label of a form field');
      if (item.control.type === 'button') say('caption', 'fieldLabel', item.control.caption, 'words on a button');
      if (item.control.type === 'text') say('value', 'fieldLabel', item.control.value, 'words that a field begins with');
      if (item.control.type === 'choice')
        item.control.options.forEach((o, i) =>
          this.add(`option:${id}:${i + 1}`, 'fieldLabel', o.label, 'choice of a form field', pages, hidden),
        );
    }
    for (const cue of Object.values(item.cues))
      cue.steps.forEach((step, i) => {
        if (step.do === 'go' && step.destination.to === 'address')
          this.add(`goes:${cue.id}:${i + 1}`, 'linkTarget', step.destination.href, 'address that is opened', pages, hidden);
      });
  }

  private story(story: Story, pages?: readonly number[]): void {
    if (this.done.has(story.id)) return;
    this.done.add(story.id);
    const { folio } = this;
    const first = story.frames.map((f) => folio.spreads[f.spread]?.items[f.item]);
    const hidden = first.length > 0 && first.every((item) => item && isOnHiddenLayer(folio, item));
    const isMaster = story.frames.some((f) => folio.head.masterPages[f.spread]);
    const shownOn = pages ?? this.pagesOfFrames(story);
    const notes = notesIn(story);
    const frames = storyOfFrame(folio);
    for (const paragraph of paragraphsOf(story)) {
      if (paragraph.translate === false || this.staysBy(paragraph)) continue;
      const kind: UnitKind = this.speakersNotes.has(story.id)
        ? 'speakersNote'
        : isMaster
          ? 'master'
          : notes.has(paragraph.id)
            ? 'note'
            : 'text';
      this.paragraph(paragraph, story, kind, [...(this.pagesByParagraph.get(paragraph.id) ?? shownOn)], hidden);
    }
    for (const item of Object.values(story.items)) {
      this.item(item, shownOn);
      const inside = folio.stories[frames.get(item.id) ?? ''];
      if (inside) this.story(inside, shownOn);
    }
    for (const link of Object.values(story.links)) {
      if (link.destination.to === 'address')
        this.add(
          `link:${story.id}:${link.id}`,
          'linkTarget',
          link.destination.href,
          'address that a link leads to',
          shownOn,
          hidden,
          story.id,
        );
      this.add(`linkTitle:${story.id}:${link.id}`, 'linkTitle', link.title, 'title of a link', shownOn, hidden, story.id);
    }
  }

  private paragraph(paragraph: Paragraph, story: Story, kind: UnitKind, pages: readonly number[], hidden: boolean): void {
    const text = codedParagraph(this.folio, story, paragraph);
    if (!text.parts.some((p) => p.type === 'text' || p.type === 'code')) return;
    const style = this.folio.head.paragraphStyles[paragraph.style]?.name;
    const says =
      kind === 'note' ? 'note' : kind === 'speakersNote' ? 'speaker’s notes' : kind === 'master' ? 'text of a master page' : 'text';
    this.out.push({
      id: paragraph.id,
      kind,
      language: this.languageOf(paragraph),
      pages,
      ...(style !== undefined && { style }),
      says,
      story: story.id,
      paragraph: paragraph.id,
      hidden,
      ...text,
      ...this.roomFor(story),
    });
  }

  /**
   * How many letters there is room for where a text stands alone in its one frame: as many lines as its height holds, of letters as wide as
   * its own are on average. Other texts go on, or share their frame.
   */
  private roomFor(story: Story): { room?: number } {
    if (!this.composition || story.order.length !== 1 || story.frames.length !== 1) return {};
    const { spread, item } = story.frames[0]!;
    const lines = this.composition.frames.get(item)?.lines ?? [];
    const frame = this.folio.spreads[spread]?.items[item];
    const letters = lines.reduce((n, l) => n + l.end - l.start, 0);
    const width = lines.reduce((n, l) => n + l.width, 0);
    if (frame?.kind !== 'textFrame' || !letters || !width) return {};
    const pitch =
      (Math.max(...lines.map((l) => l.baseline + l.descent)) - Math.min(...lines.map((l) => l.baseline - l.ascent))) / lines.length;
    const height = frame.size.height - frame.inset[0] - frame.inset[2];
    const fit = Math.max(lines.length, Math.floor(height / pitch));
    return { room: Math.max(letters, Math.floor((fit * Math.max(...lines.map((l) => l.measure))) / (width / letters))) };
  }

  private readonly stays = new Map<string, boolean>();
  /** Whether the style of a paragraph says that it stays as it is; asked once of each. */
  private staysBy(paragraph: Paragraph): boolean {
    let stays = this.stays.get(paragraph.style);
    if (stays === undefined) this.stays.set(paragraph.style, (stays = paragraphStays(this.folio.head, paragraph)));
    return stays;
  }

  private readonly languages = new Map<string, string>();
  /** The language a paragraph says it is in; where none of its styles says so, that of its document. */
  private languageOf(paragraph: Paragraph): string {
    const { head } = this.folio;
    if (paragraph.character?.language !== undefined) return resolveParagraph(head, paragraph).character.language;
    let language = this.languages.get(paragraph.style);
    if (language === undefined) {
      const said = styleChain(head.paragraphStyles, paragraph.style).some((s) => s.character.language !== undefined);
      language = said ? resolveParagraph(head, { ...paragraph, character: undefined }).character.language : head.metadata.language;
      this.languages.set(paragraph.style, language);
    }
    return language;
  }

  private pagesOfFrames(story: Story): number[] {
    const on = story.frames.flatMap((f) => {
      const spread = this.folio.spreads[f.spread];
      const item = spread?.items[f.item];
      return spread && item ? this.pageOf(spread, item) : [];
    });
    return [...new Set(on)].sort((a, b) => a - b);
  }
}

function notesIn(story: Story): Set<string> {
  const inside = new Set<string>();
  for (const block of Object.values(story.blocks))
    if (block.kind === 'paragraph') for (const node of block.content) if (node.type === 'note') for (const id of node.order) inside.add(id);
  return inside;
}
