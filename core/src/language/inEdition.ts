import type { Edition, TextPart } from '../folio/edition.ts';
import type { Folio } from '../folio/folio.ts';
import type { Head } from '../folio/head.ts';
import type { Item } from '../folio/items.ts';
import { FolioError } from '../ports/ports.ts';
import type { Inline, Paragraph, Story } from '../folio/story.ts';
import type { CharacterOverrides } from '../folio/styles.ts';
import { resolveParagraph } from '../folio/resolve.ts';
import { same } from '../folio/same.ts';
import { without } from '../folio/without.ts';
import { byConventions } from './conventions.ts';
import { contentOf } from './codes.ts';
import { fixedTextIn } from './fixedTexts.ts';
import { primary } from './goesOut.ts';
import { wordsOf } from './parts.ts';
import { sortedAnew } from './sortAnew.ts';
import { standingOf } from './standing.ts';
import { tightened } from './tighten.ts';
import { plainText } from './unit.ts';
import { codedParagraph } from './unitsOf.ts';

/** Languages that are written from the right (Unicode CLDR, `characterOrder`). */
const FROM_THE_RIGHT = new Set(['ar', 'he', 'fa', 'ur', 'yi', 'ps', 'sd', 'ug', 'dv']);
export const isFromTheRight = (language: string): boolean => FROM_THE_RIGHT.has(primary(language));

/** An edition with what it takes from those it is based on: German texts for Austrian German. */
export function wholeEdition(folio: Folio, language: string): Edition | undefined {
  const chain: Edition[] = [];
  for (let edition = folio.editions[language]; edition && !chain.includes(edition); edition = folio.editions[edition.basedOn ?? ''])
    chain.unshift(edition);
  const last = chain[chain.length - 1];
  if (!last || chain.length === 1) return last;
  const overrides = chain.map((e) => e.overrides);
  return {
    ...last,
    units: Object.assign({}, ...chain.map((e) => e.units).map(translatedOnes)) as Edition['units'],
    overrides: {
      fonts: Object.assign({}, ...overrides.map((o) => o.fonts)) as Edition['overrides']['fonts'],
      paragraphStyles: Object.assign({}, ...overrides.map((o) => o.paragraphStyles)) as Edition['overrides']['paragraphStyles'],
      characterStyles: Object.assign({}, ...overrides.map((o) => o.characterStyles)) as Edition['overrides']['characterStyles'],
      italics: overrides.map((o) => o.italics).findLast((i) => i !== 'italic') ?? 'italic',
      pictures: Object.assign({}, ...overrides.map((o) => o.pictures)) as Edition['overrides']['pictures'],
      links: Object.assign({}, ...overrides.map((o) => o.links)) as Edition['overrides']['links'],
      tightened: Object.assign({}, ...overrides.map((o) => o.tightened)) as Edition['overrides']['tightened'],
    },
  };
}

/** Units of which something is translated. */
const translatedOnes = (units: Edition['units']): Edition['units'] =>
  Object.fromEntries(Object.entries(units).filter(([, u]) => u.segments.some((s) => s.target !== null)));

const made = new WeakMap<Folio, Map<string, Folio>>();

/**
 * A document in one of its languages: texts that are translated have their translation, in the styles that their sources have now; all else
 * stays as it is. The document itself in its own language. A FolioError where there is no such edition.
 */
export function inEdition(folio: Folio, language: string): Folio {
  if (language === folio.head.metadata.language) return folio;
  let known = made.get(folio);
  if (!known) made.set(folio, (known = new Map()));
  let translated = known.get(language);
  if (!translated) {
    const edition = wholeEdition(folio, language);
    if (!edition)
      throw new FolioError(
        'edition.none',
        `The document has no edition in “${language}”.`,
        `It has: ${[folio.head.metadata.language, ...Object.keys(folio.editions)].join(', ')}.`,
      );
    known.set(language, (translated = new Translating(folio, edition).all()));
  }
  return translated;
}

class Translating {
  private readonly from: string;
  /** Written from the other side than its source; `null` where both are written from the same. */
  private readonly turnedTo: 'ltr' | 'rtl' | null;

  constructor(
    private readonly folio: Folio,
    private readonly edition: Edition,
  ) {
    this.from = folio.head.metadata.language;
    const [was, is] = [isFromTheRight(this.from), isFromTheRight(edition.language)];
    this.turnedTo = was === is ? null : is ? 'rtl' : 'ltr';
  }

  all(): Folio {
    const { folio, edition } = this;
    const spreads = mapped(folio.spreads, (spread) => {
      const items = this.items(spread.items);
      return items === spread.items ? spread : { ...spread, items };
    });
    const masterPages = mapped(folio.head.masterPages, (master) => {
      const items = this.items(master.items);
      return items === master.items ? master : { ...master, items };
    });
    const stories = mapped(folio.stories, (story) => this.story(story));
    const head: Head = { ...this.head(), masterPages };
    const editions = without(folio.editions, edition.language);
    const inLanguage: Folio = { ...folio, head, spreads, stories, editions };
    return sortedAnew(tightened(inLanguage, edition.overrides.tightened), edition.language);
  }

  /** The words that a unit has in this language; undefined where it has none. */
  private says(id: string, text: string | undefined): string | undefined {
    const unit = text === undefined ? undefined : this.edition.units[id];
    if (!unit || text === undefined) return undefined;
    const target = standingOf(plainText(text), unit).target;
    return target ? wordsOf(this.usual(target)) : undefined;
  }

  private usual(parts: readonly TextPart[]): TextPart[] {
    return byConventions(parts, this.edition.conventions, this.from, this.edition.language);
  }

  private head(): Head {
    const { head } = this.folio;
    const { overrides, language } = this.edition;
    const { metadata } = head;
    const description = this.says('meta:description', metadata.description);
    const rights = this.says('meta:rights', metadata.rights);
    const outline = mapped(head.structure.outline, (entry, id) => {
      const text = this.says(`outline:${id}`, entry.text);
      return text === undefined ? entry : { ...entry, text };
    });
    return {
      ...head,
      metadata: {
        ...metadata,
        language,
        title: this.says('meta:title', metadata.title) ?? metadata.title,
        subjects: metadata.subjects.map((s, i) => this.says(`meta:subject:${i + 1}`, s) ?? s),
        ...(description !== undefined && { description }),
        ...(rights !== undefined && { rights }),
      },
      structure: { ...head.structure, outline },
      paragraphStyles: mapped(head.paragraphStyles, (style, id) => {
        const own = overrides.paragraphStyles[id];
        const character = this.look({ ...style.character, ...own?.character });
        return same(character, style.character) && !own?.paragraph
          ? style
          : { ...style, character, paragraph: { ...style.paragraph, ...own?.paragraph } };
      }),
      characterStyles: mapped(head.characterStyles, (style, id) => {
        const character = this.look({ ...style.character, ...overrides.characterStyles[id]?.character });
        return same(character, style.character) ? style : { ...style, character };
      }),
      listStyles: mapped(head.listStyles, (style) => ({
        ...style,
        levels: style.levels.map((level) =>
          level.texts[language] !== undefined || level.texts[primary(language)] !== undefined || level.kind === 'bullet'
            ? level
            : { ...level, texts: { ...level.texts, [language]: fixedTextIn(level.text, primary(this.from), primary(language)) } },
        ),
      })),
    };
  }

  /** A look with the typefaces and the slant that this language has; the same object where it has no others. */
  private look(look: CharacterOverrides): CharacterOverrides {
    const { fonts, italics } = this.edition.overrides;
    const other = look.fontFamily === undefined ? undefined : fonts[look.fontFamily];
    const slanted = look.fontStyle === 'italic' && italics !== 'italic';
    if (!other && !slanted) return look;
    return {
      ...look,
      ...(other && {
        fontFamily: other.family,
        ...(other.scale !== undefined && look.size !== undefined && { size: look.size * other.scale }),
      }),
      ...(slanted && { fontStyle: 'normal', ...(italics === 'bold' && { fontWeight: 700 }) }),
    };
  }

  private items<T extends Record<string, Item>>(items: T): T {
    return mapped(items, (item) => this.item(item)) as T;
  }

  private item(item: Item): Item {
    const { overrides } = this.edition;
    const alt = this.says(`alt:${item.id}`, item.alt);
    let out: Item = alt === undefined ? item : { ...item, alt };
    const cues = mapped(out.cues, (cue) => {
      const steps = cue.steps.map((step, i) => {
        if (step.do !== 'go' || step.destination.to !== 'address') return step;
        const href = this.says(`goes:${cue.id}:${i + 1}`, step.destination.href);
        return href === undefined ? step : { ...step, destination: { ...step.destination, href } };
      });
      return steps.some((s, i) => s !== cue.steps[i]) ? { ...cue, steps } : cue;
    });
    if (cues !== out.cues) out = { ...out, cues };
    if (out.kind === 'picture') {
      const other = overrides.pictures[item.id];
      return other && this.folio.head.media[other.media] ? { ...out, media: other.media } : out;
    }
    if (out.kind === 'media') {
      const transcript = this.says(`transcript:${item.id}`, out.transcript);
      const other = overrides.pictures[item.id];
      return {
        ...out,
        ...(transcript !== undefined && { transcript }),
        ...(other && this.folio.head.media[other.media] && { media: other.media }),
      };
    }
    if (out.kind === 'veil') {
      const action = this.says(`action:${item.id}`, out.action);
      return action === undefined ? out : { ...out, action };
    }
    if (out.kind === 'switcher')
      return { ...out, cards: out.cards.map((card) => ({ ...card, name: this.says(`card:${card.id}`, card.name) ?? card.name })) };
    if (out.kind !== 'field') return out;
    const { control } = out;
    const label = this.says(`label:${item.id}`, out.label) ?? out.label;
    if (control.type === 'button')
      return { ...out, label, control: { ...control, caption: this.says(`caption:${item.id}`, control.caption) ?? control.caption } };
    if (control.type === 'text')
      return { ...out, label, control: { ...control, value: this.says(`value:${item.id}`, control.value) ?? control.value } };
    if (control.type === 'choice') {
      const options = control.options.map((o, i) => ({ ...o, label: this.says(`option:${item.id}:${i + 1}`, o.label) ?? o.label }));
      return { ...out, label, control: { ...control, options } };
    }
    return { ...out, label };
  }

  private story(story: Story): Story {
    const { overrides } = this.edition;
    const blocks = mapped(story.blocks, (block) => (block.kind === 'paragraph' ? this.paragraph(block, story) : block));
    const items = this.items(story.items);
    const links = mapped(story.links, (link) => {
      const key = `${story.id}:${link.id}`;
      const title = this.says(`linkTitle:${key}`, link.title);
      const other = overrides.links[`${story.id}/${link.id}`];
      const href = other ?? (link.destination.to === 'address' ? this.says(`link:${key}`, link.destination.href) : undefined);
      if (title === undefined && href === undefined) return link;
      const destination =
        href === undefined
          ? link.destination
          : { to: 'address' as const, href, window: link.destination.to === 'address' ? link.destination.window : ('same' as const) };
      return { ...link, destination, ...(title !== undefined && { title }) };
    });
    return blocks === story.blocks && items === story.items && links === story.links ? story : { ...story, blocks, items, links };
  }

  private paragraph(paragraph: Paragraph, story: Story): Paragraph {
    const unit = this.edition.units[paragraph.id];
    if (!unit) return this.looks(paragraph);
    const source = codedParagraph(this.folio, story, paragraph);
    const { target } = standingOf(source, unit);
    if (!target) return this.looks(paragraph);
    // A copy of the source is the source’s own text, as it stands.
    const content = target === source.parts ? paragraph.content : contentOf(this.usual(target), source.codes, source.ground);
    const own = { ...paragraph.character, language: this.edition.language };
    const looked = this.looks({ ...paragraph, character: own, content: content.map((n) => this.spokenHere(n)) });
    return this.turnedTo ? turned(this.folio.head, looked, this.turnedTo) : looked;
  }

  /** A passage that says it is in the language of the source is in this one now; one in a third language stays in it. */
  private spokenHere(node: Inline): Inline {
    if (node.type !== 'span' || node.overrides?.language === undefined || node.translate === false) return node;
    if (primary(node.overrides.language) !== primary(this.from)) return node;
    const rest = without(node.overrides, 'language');
    const span = without(node, 'overrides');
    return Object.keys(rest).length ? { ...span, overrides: rest } : span;
  }

  /** Hand formatting with the typefaces of this language. */
  private looks(paragraph: Paragraph): Paragraph {
    const character = paragraph.character && this.look(paragraph.character);
    const content = paragraph.content.map((node) => {
      if (node.type !== 'span' || !node.overrides) return node;
      const overrides = this.look(node.overrides);
      return overrides === node.overrides ? node : { ...node, overrides };
    });
    if (character === paragraph.character && content.every((n, i) => n === paragraph.content[i])) return paragraph;
    return { ...paragraph, ...(character && { character }), content };
  }
}

/** A paragraph that is written from the other side: what was aligned to where lines begin is so now. */
function turned(head: Folio['head'], paragraph: Paragraph, direction: 'ltr' | 'rtl'): Paragraph {
  const { align } = resolveParagraph(head, paragraph).paragraph;
  const other = align === 'left' ? 'right' : align === 'right' ? 'left' : align;
  return { ...paragraph, overrides: { ...paragraph.overrides, direction, align: other } };
}

/** A record with each value turned into another; the same record where none is another. */
function mapped<T>(record: Record<string, T>, turn: (value: T, key: string) => T): Record<string, T> {
  let out: Record<string, T> | null = null;
  for (const key of Object.keys(record)) {
    const value = record[key]!;
    const turned = turn(value, key);
    if (turned !== value) out ??= { ...record };
    if (out) out[key] = turned;
  }
  return out ?? record;
}
