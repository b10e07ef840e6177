import { CHARACTER_DEFAULTS, PARAGRAPH_DEFAULTS } from '../../folio/styles.ts';
import type { CharacterProperties, RoleElement } from '../../folio/styles.ts';
import { paragraphRole, resolveParagraph, resolveParagraphStyle, resolveSpan, styleChain } from '../../folio/resolve.ts';
import type { Paragraph, Span } from '../../folio/story.ts';
import type { Xml } from '../assets/xml.ts';
import { el, sequence, xmlFile } from '../assets/xml.ts';
import { NAMESPACES } from '../ooxml/wordNamespaces.ts';
import type { Numbering } from './numbering.ts';
import { differingParts, paragraphLook, paragraphProperties } from './paragraphLook.ts';
import type { LinePitch, ParagraphLook, ParagraphPart } from './paragraphLook.ts';
import { differing, inCharacterStyle, lookParts, runLook, runProperties, saidBy } from './runLook.ts';
import type { LookContext, RunLook } from './runLook.ts';
import { DEFAULT_STYLE, styleNames } from './styleNames.ts';
import type { StyleName, StyleNames } from './styleNames.ts';
import { tableStyle } from './tableStyle.ts';

/** `w:style` in the order of its schema (ISO/IEC 29500-1, 17.7.4.17, CT_Style). */
const style = sequence('w:style', [
  'w:name',
  'w:aliases',
  'w:basedOn',
  'w:next',
  'w:uiPriority',
  'w:qFormat',
  'w:pPr',
  'w:rPr',
  'w:tblPr',
  'w:tcPr',
  'w:tblStylePr',
] as const);

const BASE = { paragraph: PARAGRAPH_DEFAULTS, character: CHARACTER_DEFAULTS };

/** Styles of a document as those of a text document, and what differs from them in its text. */
export class WordStyles {
  readonly names: StyleNames;
  private readonly looks = new Map<string, ParagraphLook>();
  private readonly runs = new WeakMap<CharacterProperties, RunLook>();
  private readonly base: { paragraph: ParagraphLook; run: RunLook };

  constructor(
    private readonly context: LookContext,
    private readonly numbering: Numbering,
    private readonly settings: { styles: 'named' | 'none'; headings: 'standard' | 'own' },
  ) {
    this.names = styleNames(context.folio, settings.headings === 'standard');
    this.base = {
      paragraph: paragraphLook(BASE, context.folio.head, 'p'),
      run: runLook({ ...CHARACTER_DEFAULTS, language: context.folio.head.metadata.language }, context),
    };
  }

  /** What a paragraph says of itself: its style, and what is formatted by hand. `ink`: a colour instead of its own. */
  paragraph(
    paragraph: Paragraph,
    more: { numbering: Xml | null; pitch?: LinePitch | undefined; element: RoleElement; ink?: string | undefined },
    parts: Partial<Record<ParagraphPart, Xml | null>> = {},
  ): Xml | null {
    const { head } = this.context.folio;
    const own = paragraphLook(resolveParagraph(head, paragraph), head, more.element, more.pitch);
    const name = this.styleOf(paragraph);
    const from = name ? this.lookOfStyle(paragraph.style) : this.base.paragraph;
    return paragraphProperties({
      'w:pStyle': name && el('w:pStyle', { 'w:val': name.id }),
      ...differingParts(own, from),
      'w:numPr': more.numbering,
      // What is typed at its end looks like this.
      'w:rPr': this.run(paragraph, {}, more.ink),
      ...parts,
    });
  }

  /** What a run of words says of itself, besides its paragraph's style. `ink`: a colour instead of its own. */
  run(paragraph: Paragraph, span: Pick<Span, 'style' | 'overrides'>, ink?: string): Xml | null {
    const { head } = this.context.folio;
    const look = resolveSpan(head, resolveParagraph(head, paragraph).character, span);
    const wanted = ink === undefined ? this.lookOf(look) : { ...this.lookOf(look), colour: ink };
    const body = this.styleOf(paragraph) ? this.lookOf(resolveParagraphStyle(head, paragraph.style).character) : this.base.run;
    const name = this.settings.styles === 'named' && span.style !== undefined ? this.names.character.get(span.style) : undefined;
    const from = name ? inCharacterStyle(body, this.saidByStyle(span.style!)) : body;
    return runProperties({ 'w:rStyle': name && el('w:rStyle', { 'w:val': name.id }), ...lookParts(differing(wanted, from)) });
  }

  /** The same for a look that no text of the document has, such as that of a note's number. */
  lookOf(look: CharacterProperties): RunLook {
    let known = this.runs.get(look);
    if (!known) this.runs.set(look, (known = runLook(look, this.context)));
    return known;
  }

  table(id: string | undefined): StyleName | undefined {
    return this.settings.styles === 'named' && id !== undefined ? this.names.table.get(id) : undefined;
  }

  /** The file of all styles; `more`: those that are none of the document’s. */
  file(more: readonly Xml[]): string {
    const { head } = this.context.folio;
    const defaults = el(
      'w:docDefaults',
      {},
      el('w:rPrDefault', {}, runProperties(lookParts(this.base.run))),
      el('w:pPrDefault', {}, paragraphProperties(differingParts(this.base.paragraph, null))),
    );
    const named = this.settings.styles === 'named';
    return xmlFile(
      el(
        'w:styles',
        NAMESPACES,
        defaults,
        style(
          { 'w:name': el('w:name', { 'w:val': DEFAULT_STYLE.name }), 'w:qFormat': el('w:qFormat') },
          { 'w:type': 'paragraph', 'w:default': '1', 'w:styleId': DEFAULT_STYLE.id },
        ),
        style(
          { 'w:name': el('w:name', { 'w:val': 'Default Paragraph Font' }), 'w:uiPriority': el('w:uiPriority', { 'w:val': 1 }) },
          { 'w:type': 'character', 'w:default': '1', 'w:styleId': 'DefaultParagraphFont' },
        ),
        style(
          {
            'w:name': el('w:name', { 'w:val': 'Normal Table' }),
            'w:tblPr': el('w:tblPr', {}, el('w:tblInd', { 'w:w': 0, 'w:type': 'dxa' })),
          },
          { 'w:type': 'table', 'w:default': '1', 'w:styleId': 'TableNormal' },
        ),
        style({ 'w:name': el('w:name', { 'w:val': 'No List' }) }, { 'w:type': 'numbering', 'w:default': '1', 'w:styleId': 'NoList' }),
        named && Object.keys(head.paragraphStyles).map((id) => this.paragraphStyle(id)),
        named && Object.keys(head.characterStyles).map((id) => this.characterStyle(id)),
        named && Object.keys(head.tableStyles).map((id) => tableStyle(this.names.table.get(id)!, head.tableStyles[id]!, head, style)),
        more,
      ),
    );
  }

  private styleOf(paragraph: Paragraph): StyleName | undefined {
    return this.settings.styles === 'named' ? this.names.paragraph.get(paragraph.style) : undefined;
  }

  private lookOfStyle(id: string): ParagraphLook {
    const { head } = this.context.folio;
    let known = this.looks.get(id);
    if (!known) this.looks.set(id, (known = paragraphLook(resolveParagraphStyle(head, id), head, paragraphRole(head, id).element)));
    return known;
  }

  private saidByStyle(id: string): Partial<RunLook> {
    const chain = styleChain(this.context.folio.head.characterStyles, id);
    const overrides = Object.assign({}, ...chain.map((s) => s.character)) as Partial<CharacterProperties>;
    return saidBy(overrides, runLook({ ...CHARACTER_DEFAULTS, ...overrides }, this.context));
  }

  private paragraphStyle(id: string): Xml {
    const { head } = this.context.folio;
    const own = head.paragraphStyles[id]!;
    const parent = parentOf(head.paragraphStyles, id);
    const name = this.names.paragraph.get(id)!;
    const resolved = resolveParagraphStyle(head, id);
    const base = parent === undefined ? null : resolveParagraphStyle(head, parent);
    const next = own.next === undefined ? undefined : this.names.paragraph.get(own.next);
    return style(
      {
        ...named(name, parent === undefined ? DEFAULT_STYLE : this.names.paragraph.get(parent)!),
        'w:next': next && el('w:next', { 'w:val': next.id }),
        'w:uiPriority': name.alias === undefined ? null : el('w:uiPriority', { 'w:val': 9 }),
        'w:qFormat': el('w:qFormat'),
        'w:pPr': paragraphProperties({
          ...differingParts(this.lookOfStyle(id), base ? this.lookOfStyle(parent!) : this.base.paragraph),
          'w:numPr': this.numbering.ofStyle(resolved.paragraph.list),
        }),
        'w:rPr': runProperties(lookParts(differing(this.lookOf(resolved.character), base ? this.lookOf(base.character) : this.base.run))),
      },
      // Styles by the names of the standard are not a document's own.
      { 'w:type': 'paragraph', 'w:customStyle': name.alias === undefined ? '1' : undefined, 'w:styleId': name.id },
    );
  }

  private characterStyle(id: string): Xml {
    const { head } = this.context.folio;
    const parent = parentOf(head.characterStyles, id);
    const [own, below] = [this.saidByStyle(id), parent === undefined ? {} : this.saidByStyle(parent)];
    const said = Object.fromEntries(
      Object.entries(own).filter(([k, v]) => !(k in below) || below[k as keyof RunLook] !== v),
    ) as Partial<RunLook>;
    const name = this.names.character.get(id)!;
    return style(
      {
        ...named(name, parent === undefined ? { id: 'DefaultParagraphFont' } : this.names.character.get(parent)!),
        'w:qFormat': el('w:qFormat'),
        'w:rPr': runProperties(lookParts(said)),
      },
      { 'w:type': 'character', 'w:customStyle': '1', 'w:styleId': name.id },
    );
  }
}

/** The style below one, unless their inheritance runs in a circle: the format has none, so such a style says all by itself. */
function parentOf<S extends { id: string; basedOn?: string | undefined }>(styles: Record<string, S>, id: string): string | undefined {
  const chain = styleChain(styles, id);
  const parent = chain.at(-2)?.id;
  return parent !== undefined && styleChain(styles, parent).length === chain.length - 1 ? parent : undefined;
}

const named = ({ name, alias }: StyleName, parent: { id: string }) => ({
  'w:name': el('w:name', { 'w:val': name }),
  'w:aliases': alias === undefined ? null : el('w:aliases', { 'w:val': alias }),
  'w:basedOn': el('w:basedOn', { 'w:val': parent.id }),
});
