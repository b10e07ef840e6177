import type { Head } from './head.ts';
import type { Paragraph, Span } from './story.ts';
import { CHARACTER_DEFAULTS, PARAGRAPH_DEFAULTS } from './styles.ts';
import type { CharacterOverrides, CharacterProperties, CharacterStyle, ParagraphProperties, ParagraphStyle, Role } from './styles.ts';

/** The styles from the root of inheritance down to `id`. A style that inherits from itself is cut where it repeats. */
export function styleChain<S extends { id: string; basedOn?: string | undefined }>(styles: Record<string, S>, id: string | undefined): S[] {
  const chain: S[] = [];
  for (
    let style = id === undefined ? undefined : styles[id];
    style && !chain.includes(style);
    style = style.basedOn === undefined ? undefined : styles[style.basedOn]
  )
    chain.unshift(style);
  return chain;
}

export interface ResolvedStyle {
  paragraph: ParagraphProperties;
  character: CharacterProperties;
}

const paragraphCache = new WeakMap<object, Map<string, ResolvedStyle>>();

/** All properties of a paragraph style after inheritance; the same object for the same set of styles. */
export function resolveParagraphStyle(head: Pick<Head, 'paragraphStyles'>, id: string): ResolvedStyle {
  let cache = paragraphCache.get(head.paragraphStyles);
  if (!cache) paragraphCache.set(head.paragraphStyles, (cache = new Map<string, ResolvedStyle>()));
  let resolved = cache.get(id);
  if (!resolved) {
    const chain = styleChain(head.paragraphStyles, id);
    resolved = {
      paragraph: Object.assign({}, PARAGRAPH_DEFAULTS, ...chain.map((s) => s.paragraph)) as ParagraphProperties,
      character: Object.assign({}, CHARACTER_DEFAULTS, ...chain.map((s) => s.character)) as CharacterProperties,
    };
    cache.set(id, resolved);
  }
  return resolved;
}

/** A paragraph's own properties: its style, then its hand formatting. */
export function resolveParagraph(head: Pick<Head, 'paragraphStyles'>, paragraph: Paragraph): ResolvedStyle {
  const style = resolveParagraphStyle(head, paragraph.style);
  if (!paragraph.overrides && !paragraph.character) return style;
  return {
    paragraph: { ...style.paragraph, ...paragraph.overrides } as ParagraphProperties,
    character: { ...style.character, ...paragraph.character } as CharacterProperties,
  };
}

const spanCache = new WeakMap<object, WeakMap<CharacterProperties, Map<string, CharacterProperties>>>();

/** A paragraph's look in a character style, with what that inherits; the same object for the same styles and look. */
function inStyle(head: Pick<Head, 'characterStyles'>, base: CharacterProperties, id: string): CharacterProperties {
  let byBase = spanCache.get(head.characterStyles);
  if (!byBase) spanCache.set(head.characterStyles, (byBase = new WeakMap()));
  let byStyle = byBase.get(base);
  if (!byStyle) byBase.set(base, (byStyle = new Map<string, CharacterProperties>()));
  let look = byStyle.get(id);
  if (!look) {
    const chain = styleChain<CharacterStyle>(head.characterStyles, id);
    byStyle.set(id, (look = Object.assign({}, base, ...chain.map((s) => s.character)) as CharacterProperties));
  }
  return look;
}

/** A span's properties: the paragraph's, then its character style with what that inherits, then overrides. */
export function resolveSpan(
  head: Pick<Head, 'characterStyles'>,
  base: CharacterProperties,
  span: { style?: string | undefined; overrides?: CharacterOverrides | undefined },
): CharacterProperties {
  const look = span.style ? inStyle(head, base, span.style) : base;
  return span.overrides ? (Object.assign({}, look, span.overrides) as CharacterProperties) : look;
}

/** The line pitch in points; `auto` is 120 % of the size (common practice). */
export const leadingOf = (c: CharacterProperties): number => (c.leading === 'auto' ? c.size * 1.2 : c.leading);

const nearestRole = (chain: (ParagraphStyle | CharacterStyle)[]): Role | undefined => [...chain].reverse().find((s) => s.role)?.role;

/** A paragraph's role: the nearest in its style's inheritance, else a plain paragraph. */
export const paragraphRole = (head: Pick<Head, 'paragraphStyles'>, styleId: string): Role =>
  nearestRole(styleChain(head.paragraphStyles, styleId)) ?? { element: 'p', startsSection: false, leaveOut: false };

export const spanRole = (head: Pick<Head, 'characterStyles'>, span: Span): Role | undefined =>
  nearestRole(styleChain(head.characterStyles, span.style));

/** Whether a paragraph stays as it is in every language: it says so itself, or its style does. */
export const paragraphStays = (head: Pick<Head, 'paragraphStyles'>, paragraph: Paragraph): boolean =>
  paragraph.translate === false || styleChain(head.paragraphStyles, paragraph.style).some((s) => s.translate === false);

/** The same for words. */
export const spanStays = (head: Pick<Head, 'characterStyles'>, span: Span): boolean =>
  span.translate === false || styleChain(head.characterStyles, span.style).some((s) => s.translate === false);
