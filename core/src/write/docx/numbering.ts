import type { Folio } from '../../folio/folio.ts';
import { resolveParagraph, resolveSpan } from '../../folio/resolve.ts';
import { CHARACTER_DEFAULTS } from '../../folio/styles.ts';
import type { Paragraph, Story } from '../../folio/story.ts';
import type { Xml } from '../assets/xml.ts';
import { el, xmlFile } from '../assets/xml.ts';
import { NAMESPACES } from '../ooxml/wordNamespaces.ts';
import type { LookContext } from './runLook.ts';
import { lookParts, runLook, runProperties, saidBy } from './runLook.ts';

type ListStyle = Folio['head']['listStyles'][string];

/** The format has nine levels (ISO/IEC 29500-1, 17.9.6). */
const LEVELS = 9;

/** An abstract definition: of a list style, its words in a language where that has words of its own. */
interface Definition {
  number: number;
  style: string;
  language: string;
}

/**
 * Lists as the format counts them: a list style is an abstract definition, made again for each text, since those of one definition
 * count together; where a paragraph says so, counting begins anew (ISO/IEC 29500-1, 17.9.15, 17.9.18).
 */
export class Numbering {
  private readonly definitions = new Map<string, Definition>();
  private readonly instances: { id: number; definition: Definition; level: number; start: number | null }[] = [];
  private readonly current = new Map<string, number>();

  constructor(private readonly context: LookContext) {
    const { metadata, listStyles } = context.folio.head;
    for (const id of Object.keys(listStyles)) this.begin(this.define('', id, metadata.language), 0, null);
  }

  /** Of a style: which list, and which level of it; for text that colleagues will write in it. */
  ofStyle(list: { style: string; level: number } | null): Xml | null {
    const instance = list && this.instances.find((i) => i.definition.style === list.style);
    return instance ? numberProperties(instance.id, list.level) : null;
  }

  /** Of a paragraph, which must come in the order of its text. */
  of(story: Story, paragraph: Paragraph): Xml | null {
    const { paragraph: own, character } = resolveParagraph(this.context.folio.head, paragraph);
    const { list } = own;
    const style = list && this.context.folio.head.listStyles[list.style];
    if (!list || !style) return null;
    const language = style.levels.some((l) => Object.keys(l.texts).length) ? character.language : '';
    const key = `${story.id} ${list.style} ${language}`;
    let id = this.current.get(key);
    if (id === undefined || list.restart !== undefined) {
      id = this.begin(this.define(story.id, list.style, language), list.level, list.restart ?? 1);
      this.current.set(key, id);
    }
    return numberProperties(id, list.level);
  }

  private define(story: string, style: string, language: string): Definition {
    const key = `${story} ${style} ${language}`;
    let known = this.definitions.get(key);
    if (!known) this.definitions.set(key, (known = { number: this.definitions.size, style, language }));
    return known;
  }

  private begin(definition: Definition, level: number, start: number | null): number {
    const id = this.instances.length + 1;
    this.instances.push({ id, definition, level, start });
    return id;
  }

  get isEmpty(): boolean {
    return !this.instances.length;
  }

  file(): string {
    const { listStyles } = this.context.folio.head;
    const abstract = [...this.definitions.values()].map(({ number, style, language }) =>
      el(
        'w:abstractNum',
        { 'w:abstractNumId': number },
        el('w:multiLevelType', { 'w:val': 'multilevel' }),
        listStyles[style]!.levels.slice(0, LEVELS).map((level, i) => this.level(level, i, language)),
      ),
    );
    const numbers = this.instances.map(({ id, definition, level, start }) =>
      el(
        'w:num',
        { 'w:numId': id },
        el('w:abstractNumId', { 'w:val': definition.number }),
        start === null
          ? null
          : Array.from({ length: level + 1 }, (_, i) =>
              el('w:lvlOverride', { 'w:ilvl': i }, el('w:startOverride', { 'w:val': i === level ? start : 1 })),
            ),
      ),
    );
    return xmlFile(el('w:numbering', NAMESPACES, abstract, numbers));
  }

  private level(level: ListStyle['levels'][number], at: number, language: string): Xml {
    const { head } = this.context.folio;
    const look = level.character === undefined ? null : resolveSpan(head, CHARACTER_DEFAULTS, { style: level.character });
    const text = level.texts[language] ?? level.texts[language.split('-')[0]!] ?? level.text;
    const said = look && saidBy(head.characterStyles[level.character!]?.character ?? {}, runLook(look, this.context));
    return el(
      'w:lvl',
      { 'w:ilvl': at },
      el('w:start', { 'w:val': 1 }),
      el('w:numFmt', { 'w:val': level.kind === 'bullet' ? 'bullet' : FORMATS[level.format] }),
      el('w:suff', { 'w:val': level.indent > 0 ? 'tab' : 'space' }),
      el('w:lvlText', { 'w:val': level.kind === 'bullet' ? text : asPlaces(text, at) }),
      el('w:lvlJc', { 'w:val': 'left' }),
      said && runProperties(lookParts(said)),
    );
  }
}

const FORMATS: Record<ListStyle['levels'][number]['format'], string> = {
  decimal: 'decimal',
  lowerAlpha: 'lowerLetter',
  upperAlpha: 'upperLetter',
  lowerRoman: 'lowerRoman',
  upperRoman: 'upperRoman',
};

/** `{n}` and `{1}` … are `%2` and `%1` …; a sign of per cent of the text's own cannot stand before a digit (17.9.11). */
const asPlaces = (text: string, at: number): string =>
  text.replace(/%(?=\d)/g, '% ').replace(/\{([n1-9])\}/g, (_, n: string) => `%${n === 'n' ? at + 1 : n}`);

const numberProperties = (id: number, level: number): Xml =>
  el('w:numPr', {}, el('w:ilvl', { 'w:val': Math.min(level, LEVELS - 1) }), el('w:numId', { 'w:val': id }));
