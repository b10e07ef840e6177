import { z } from 'zod';
import { change, changesOf } from '../folio/changesOf.ts';
import { Id, Language } from '../folio/ids.ts';
import type { Folio } from '../folio/folio.ts';
import { Recipe } from '../folio/folio.ts';
import { Conventions, Edition, EditionOverrides, isLocked, Tightening, TranslatedUnit } from '../folio/edition.ts';
import { Inline } from '../folio/story.ts';
import type { Span } from '../folio/story.ts';
import { contentLength, normalise, sliceContent } from '../folio/text.ts';
import { MovingPart } from '../folio/items.ts';
import { Cue, Opening, Transition } from '../folio/motion.ts';
import { MediaFile, Metadata, OutlineEntry, Pin, Strand } from '../folio/head.ts';
import { Role } from '../folio/styles.ts';
import { closeUp } from './closeUp.ts';
import { Clip, CopiedCues, pasteCues, pasteItems } from './copyItems.ts';
import { layPages } from './facingPages.ts';
import { makeSwitcher } from './makeSwitcher.ts';
import { mergeStyles } from './mergeStyles.ts';
import { nameLooks } from './nameLooks.ts';
import { layGrid, takeGridBack } from './repeatInGrid.ts';
import { Grid } from '../folio/spread.ts';
import { orderSpread } from './orderSpread.ts';
import { listWith, movePins, replaceText, TextEditError } from './place.ts';

const Place = z.object({ paragraphId: Id, offset: z.number().int().min(0) });

/** Ties an edit's name to the schema of its arguments and to what it does to an immer draft. */
function edit<K extends string, A extends z.ZodType>(kind: K, args: A, run: (draft: Folio, args: z.output<A>) => void) {
  return { kind, args, run: run as (draft: Folio, args: never) => void };
}

const need = <T>(value: T | undefined, what: string): T => {
  if (value === undefined) throw new TextEditError(`${what} is not in the document any more.`);
  return value;
};

/** An edition that may be changed. */
function unlocked(draft: Folio, language: string): Edition {
  const edition = need(draft.editions[language], 'This edition');
  if (isLocked(edition)) throw new TextEditError(`The edition in “${language}” is locked; unlock it first.`);
  return edition;
}

/** A list with an id at its end, or without it. */
const listed = (list: readonly string[], id: string, isOn: boolean): string[] => [
  ...list.filter((other) => other !== id),
  ...(isOn ? [id] : []),
];

/** The cues of an item, or of a page. */
const cuesOf = (draft: Folio, spread: string, holder: string): Record<string, Cue> =>
  need(draft.spreads[spread]?.items[holder] ?? draft.spreads[spread]?.pages.find((p) => p.id === holder), 'What the cue hangs on').cues;

function spokenIn(span: Span, language: string | null): Span {
  const { overrides, ...rest } = span;
  const own = { ...overrides };
  delete own.language;
  if (language !== null) own.language = language;
  return Object.keys(own).length ? { ...rest, overrides: own } : rest;
}

function setTranslated(thing: { translate?: false | undefined }, on: boolean): void {
  if (on) delete thing.translate;
  else thing.translate = false;
}

function translatedOrNot(span: Span, on: boolean): Span {
  const own = { ...span };
  setTranslated(own, on);
  return own;
}

/** Every change a person can make to a document, by name. */
export const EDITS = [
  edit(
    'text.replace',
    z.object({ story: Id, from: Place, to: Place, content: z.array(z.array(Inline)).min(1), newIds: z.array(Id) }),
    (draft, a) => {
      const story = need(draft.stories[a.story], 'This text');
      const order = [...(listWith(story, a.from.paragraphId) ?? [])];
      replaceText(story, a);
      movePins(Object.values(draft.head.structure.pins), a, order);
    },
  ),
  edit('paragraph.style', z.object({ story: Id, paragraph: Id, style: Id }), (draft, a) => {
    const block = need(draft.stories[a.story]?.blocks[a.paragraph], 'This paragraph');
    need(draft.head.paragraphStyles[a.style], 'This style');
    if (block.kind === 'paragraph') block.style = a.style;
  }),
  edit('document.metadata', changesOf(Metadata), (draft, a) => {
    change(draft.head.metadata, a);
  }),
  edit('item.alt', z.object({ spread: Id, item: Id, alt: z.string().nullable() }), (draft, a) => {
    const item = need(draft.spreads[a.spread]?.items[a.item], 'This item');
    if (a.alt === null) delete item.alt;
    else item.alt = a.alt;
  }),
  edit('item.decoration', z.object({ item: Id, decoration: z.boolean() }), (draft, a) => {
    draft.head.structure.decorations = listed(draft.head.structure.decorations, a.item, a.decoration);
  }),
  /** Whether running text shows a group as one figure. */
  edit('item.figure', z.object({ item: Id, figure: z.boolean() }), (draft, a) => {
    draft.head.structure.figures = listed(draft.head.structure.figures, a.item, a.figure);
  }),
  edit('style.role', z.object({ style: Id, role: Role }), (draft, a) => {
    need(draft.head.paragraphStyles[a.style], 'This style').role = a.role;
  }),
  /** What many styles mean, at one time; null takes a role away. */
  edit('styles.roles', z.object({ paragraph: z.record(Id, Role.nullable()), character: z.record(Id, Role.nullable()) }), (draft, a) => {
    for (const [styles, roles] of [
      [draft.head.paragraphStyles, a.paragraph],
      [draft.head.characterStyles, a.character],
    ] as const)
      for (const [id, role] of Object.entries(roles)) {
        const style = need(styles[id], 'This style');
        if (role) style.role = role;
        else delete style.role;
      }
  }),
  /** The order in which a spread is read, fixed by hand. */
  edit('path.order', z.object({ spread: Id, order: z.array(Id) }), (draft, a) => {
    const spread = need(draft.spreads[a.spread], 'This spread');
    for (const id of a.order) need(spread.items[id], 'This item');
    orderSpread(draft.head, a.spread, a.order);
  }),
  edit('item.leftOut', z.object({ item: Id, leftOut: z.boolean() }), (draft, a) => {
    draft.head.structure.leftOut = listed(draft.head.structure.leftOut, a.item, a.leftOut);
  }),
  edit('paragraph.sectionStart', z.object({ paragraph: Id, starts: z.boolean() }), (draft, a) => {
    const list = draft.head.structure.sectionStarts.filter((id) => id !== a.paragraph);
    draft.head.structure.sectionStarts = a.starts ? [...list, a.paragraph] : list;
  }),
  /** The whole path, as strands in their order. */
  edit('path.strands', z.object({ strands: z.array(Strand) }), (draft, a) => {
    for (const e of a.strands.flatMap((s) => s.entries)) need(draft.spreads[e.spread]?.items[e.item], 'This item');
    draft.head.structure.strands = a.strands.filter((s) => s.entries.length);
  }),
  /** What lists of contents say of a heading; null: its own words. */
  edit('outline.entry', z.object({ paragraph: Id, entry: OutlineEntry.nullable() }), (draft, a) => {
    if (a.entry) draft.head.structure.outline[a.paragraph] = a.entry;
    else delete draft.head.structure.outline[a.paragraph];
  }),
  edit('caption.link', z.object({ caption: Id, figure: Id.nullable() }), (draft, a) => {
    if (a.figure === null) delete draft.head.structure.captions[a.caption];
    else draft.head.structure.captions[a.caption] = a.figure;
  }),
  /** The language of paragraphs, told to screen readers and to the typesetter; null: that of their style. */
  edit('paragraph.language', z.object({ story: Id, paragraphs: z.array(Id).min(1), language: Language.nullable() }), (draft, a) => {
    for (const id of a.paragraphs) {
      const block = need(draft.stories[a.story]?.blocks[id], 'This paragraph');
      if (block.kind !== 'paragraph') continue;
      const character = { ...block.character };
      delete character.language;
      if (a.language !== null) character.language = a.language;
      if (Object.keys(character).length) block.character = character;
      else delete block.character;
    }
  }),
  /** In which language some words of a paragraph are; null: in that of the paragraph. */
  edit(
    'words.language',
    z.object({ story: Id, paragraph: Id, from: z.number().int().min(0), to: z.number().int().min(0), language: Language.nullable() }),
    (draft, a) => {
      const block = need(draft.stories[a.story]?.blocks[a.paragraph], 'This paragraph');
      if (block.kind !== 'paragraph') return;
      const words = sliceContent(block.content, a.from, a.to).map((node) => (node.type === 'span' ? spokenIn(node, a.language) : node));
      const end = contentLength(block.content);
      block.content = normalise([
        ...sliceContent(block.content, 0, a.from),
        ...words,
        ...sliceContent(block.content, Math.max(a.from, a.to), end),
      ]);
    },
  ),
  /** Whether some words of a paragraph are translated, or stay as they are in every language. */
  edit(
    'words.translate',
    z.object({ story: Id, paragraph: Id, from: z.number().int().min(0), to: z.number().int().min(0), translate: z.boolean() }),
    (draft, a) => {
      const block = need(draft.stories[a.story]?.blocks[a.paragraph], 'This paragraph');
      if (block.kind !== 'paragraph') return;
      const words = sliceContent(block.content, a.from, a.to).map((node) =>
        node.type === 'span' ? translatedOrNot(node, a.translate) : node,
      );
      block.content = normalise([
        ...sliceContent(block.content, 0, a.from),
        ...words,
        ...sliceContent(block.content, Math.max(a.from, a.to), contentLength(block.content)),
      ]);
    },
  ),
  /** The same for a whole paragraph. */
  edit('paragraph.translate', z.object({ story: Id, paragraph: Id, translate: z.boolean() }), (draft, a) => {
    const block = need(draft.stories[a.story]?.blocks[a.paragraph], 'This paragraph');
    if (block.kind === 'paragraph') setTranslated(block, a.translate);
  }),
  /** The same for everything in a style. */
  edit('style.translate', z.object({ of: z.enum(['paragraph', 'character']), style: Id, translate: z.boolean() }), (draft, a) => {
    const styles = a.of === 'paragraph' ? draft.head.paragraphStyles : draft.head.characterStyles;
    setTranslated(need(styles[a.style], 'This style'), a.translate);
  }),
  /** A list in alphabetical order, by the paragraphs that begin its entries; null: it is none. Other languages sort it anew. */
  edit('list.alphabetical', z.object({ list: Id, story: Id, entries: z.array(Id).min(1).nullable() }), (draft, a) => {
    const story = need(draft.stories[a.story], 'This text');
    const lists = (draft.head.structure.alphabetical ??= {});
    delete lists[a.list];
    if (a.entries) lists[a.list] = { story: a.story, entries: a.entries.filter((id) => story.blocks[id]) };
  }),
  edit('pin.set', Pin, (draft, a) => {
    draft.head.structure.pins[a.id] = a;
  }),
  edit('pin.remove', z.object({ pin: Id }), (draft, a) => {
    delete draft.head.structure.pins[a.pin];
  }),
  edit('layer.visible', z.object({ layer: Id, visible: z.boolean() }), (draft, a) => {
    need(draft.head.layers[a.layer], 'This layer').visible = a.visible;
  }),
  /** Looks made by hand become styles; nothing looks different afterwards. */
  edit('styles.nameLooks', z.object({}), (draft) => nameLooks(draft)),
  edit('styles.merge', z.object({ keep: Id, others: z.array(Id).min(1) }), (draft, a) => {
    need(draft.head.paragraphStyles[a.keep], 'This style');
    mergeStyles(draft, a.keep, a.others);
  }),
  /** Room made by empty paragraphs becomes space after the paragraph before them. */
  edit('text.closeUp', z.object({ story: Id }), (draft, a) => void closeUp(draft.head, need(draft.stories[a.story], 'This text'))),
  edit('pages.lay', z.object({ lay: z.enum(['single', 'coverThenPairs', 'pairs']) }), (draft, a) => layPages(draft, a.lay)),
  edit('pages.bleed', z.object({ bleed: z.number().min(0).max(200) }), (draft, a) => {
    for (const spread of Object.values(draft.spreads)) for (const page of spread.pages) page.bleed = a.bleed;
  }),
  edit('font.standIn', z.object({ family: z.string().min(1), by: z.string().min(1).nullable() }), (draft, a) => {
    const key = a.family.toLowerCase();
    if (a.by === null) delete draft.head.standIns[key];
    else draft.head.standIns[key] = a.by;
  }),
  /** What happens when something happens to an item, or to a page of the spread. */
  edit('cue.set', z.object({ spread: Id, holder: Id, cue: Cue }), (draft, a) => {
    cuesOf(draft, a.spread, a.holder)[a.cue.id] = a.cue;
  }),
  edit('cue.remove', z.object({ spread: Id, holder: Id, cue: Id }), (draft, a) => {
    delete cuesOf(draft, a.spread, a.holder)[a.cue];
  }),
  /** How pages come into sight, and after how many seconds they go on by themselves; null takes it off. */
  edit(
    'pages.motion',
    z.object({
      pages: z.array(Id).min(1),
      transition: Transition.nullable().optional(),
      advanceAfter: z.number().min(0).nullable().optional(),
    }),
    (draft, a) => {
      for (const spread of Object.values(draft.spreads))
        for (const page of spread.pages) {
          if (!a.pages.includes(page.id)) continue;
          if (a.transition) page.transition = a.transition;
          else if (a.transition === null) delete page.transition;
          if (typeof a.advanceAfter === 'number') page.advanceAfter = a.advanceAfter;
          else if (a.advanceAfter === null) delete page.advanceAfter;
        }
    },
  ),
  /** A part that moves or is filled in: laid on the spread, on top, or changed where it is there. */
  edit('part.set', z.object({ spread: Id, item: MovingPart }), (draft, a) => {
    const spread = need(draft.spreads[a.spread], 'This spread');
    const { id } = a.item;
    if (spread.items[id] && spread.items[id].kind !== a.item.kind) throw new TextEditError('Something else has this name.');
    if (!spread.items[id]) spread.order.push(id);
    spread.items[id] = a.item;
  }),
  /** Takes a part off again; what lies below it, and what stood on its cards, stays. */
  edit('part.remove', z.object({ spread: Id, item: Id }), (draft, a) => {
    const spread = need(draft.spreads[a.spread], 'This spread');
    const item = need(spread.items[a.item], 'This part');
    if (!MovingPart.safeParse(item).success) return;
    const at = spread.order.indexOf(a.item);
    const held = item.kind === 'switcher' ? item.cards.flatMap((c) => c.items).filter((id) => !spread.order.includes(id)) : [];
    if (at >= 0) spread.order.splice(at, 1, ...held);
    delete spread.items[a.item];
  }),
  /** Items repeated in rows and columns, or the rows, columns and distances of such a grid changed. */
  edit('grid.set', z.object({ spread: Id, grid: Grid.refine((g) => g.rows * g.columns <= 400, 'at most 400 places') }), (draft, a) =>
    layGrid(draft, need(draft.spreads[a.spread], 'This spread'), a.grid),
  ),
  edit('grid.remove', z.object({ spread: Id, grid: Id }), (draft, a) =>
    takeGridBack(draft, need(draft.spreads[a.spread], 'This spread'), a.grid),
  ),
  /** Items that take turns in one place from now on. */
  edit(
    'switcher.make',
    z.object({
      spread: Id,
      id: Id,
      name: z.string().max(200),
      cards: z.array(z.object({ id: Id, name: z.string().max(200), items: z.array(Id).min(1) })).min(1),
    }),
    (draft, a) => makeSwitcher(draft, need(draft.spreads[a.spread], 'This spread'), a),
  ),
  /** Puts copied items on a page, and copied cues on an item or a page; `as` makes new ids of theirs. */
  edit('items.paste', z.object({ spread: Id, page: Id, clip: Clip, as: Id.max(20) }), (draft, a) => {
    const spread = need(draft.spreads[a.spread], 'This spread');
    const page = spread.pages.find((p) => p.id === a.page);
    pasteItems(draft, spread, need(page, 'This page'), a.clip, a.as);
  }),
  edit('cues.paste', z.object({ spread: Id, holder: Id, copied: CopiedCues, as: Id.max(20) }), (draft, a) =>
    pasteCues(draft, need(draft.spreads[a.spread], 'This spread'), cuesOf(draft, a.spread, a.holder), a.copied, a.as),
  ),
  /** How it is when it is opened. */
  edit('document.opening', Opening, (draft, a) => {
    draft.head.opening = a;
  }),
  /** A file that the document has from now on: it has been stored with it before. */
  edit('media.add', MediaFile, (draft, a) => {
    draft.head.media[a.id] ??= a;
  }),
  /** Whether an item is seen only once a cue shows it. */
  edit('item.startsHidden', z.object({ spread: Id, item: Id, hidden: z.boolean() }), (draft, a) => {
    const item = need(draft.spreads[a.spread]?.items[a.item], 'This item');
    if (a.hidden) item.startsHidden = true;
    else delete item.startsHidden;
  }),
  edit('recipe.set', Recipe, (draft, a) => {
    draft.recipes[a.id] = a;
  }),
  edit('recipe.remove', z.object({ recipe: Id }), (draft, a) => {
    delete draft.recipes[a.recipe];
  }),
  /** An edition in another language, of which nothing is translated yet. */
  edit('edition.make', z.object({ language: Language, name: z.string().optional(), basedOn: Language.optional() }), (draft, a) => {
    if (a.language === draft.head.metadata.language) throw new TextEditError('The document is in this language already.');
    draft.editions[a.language] ??= Edition.parse(a);
  }),
  edit('edition.remove', z.object({ language: Language }), (draft, a) => {
    delete draft.editions[a.language];
  }),
  /** Translations of some units; the others stay as they are. */
  edit('edition.units', z.object({ language: Language, units: z.record(z.string(), TranslatedUnit) }), (draft, a) => {
    Object.assign(unlocked(draft, a.language).units, a.units);
  }),
  /** Locks an edition, or unlocks it: who did so and when is kept. */
  edit('edition.lock', z.object({ language: Language, lock: Edition.shape.locks.unwrap().element }), (draft, a) => {
    need(draft.editions[a.language], 'This edition').locks.push(a.lock);
  }),
  /** What is otherwise in one language: typefaces, looks, pictures, links, how tight texts are set; conventions, and the limits of tightening. */
  edit(
    'edition.settings',
    z.object({
      language: Language,
      name: z.string().optional(),
      overrides: changesOf(EditionOverrides).optional(),
      conventions: Conventions.optional(),
      limits: Tightening.optional(),
    }),
    (draft, a) => {
      const edition = unlocked(draft, a.language);
      if (a.name !== undefined) edition.name = a.name;
      if (a.overrides) change(edition.overrides, a.overrides);
      if (a.conventions) edition.conventions = a.conventions;
      if (a.limits) edition.limits = a.limits;
    },
  ),
] as const;

type EditOf<E> = E extends { kind: infer K; args: infer A extends z.ZodType } ? { kind: K; args: z.input<A> } : never;
export type Edit = EditOf<(typeof EDITS)[number]>;
/** The arguments of one kind of edit. */
export type EditArgs<K extends Edit['kind']> = Extract<Edit, { kind: K }>['args'];

/** The wire form of an edit, for the API. */
export const EditSchema = z.discriminatedUnion(
  'kind',
  EDITS.map((e) => z.object({ kind: z.literal(e.kind), args: e.args })) as unknown as [
    z.ZodObject<{ kind: z.ZodLiteral<string>; args: z.ZodType }>,
  ],
) as unknown as z.ZodType<Edit>;
