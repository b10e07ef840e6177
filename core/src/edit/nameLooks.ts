import { canonicalJson } from '../folio/canonicalJson.ts';
import { isEmpty, lookOfParagraph, lookOfSpan } from '../folio/byHand.ts';
import type { HandLook } from '../folio/byHand.ts';
import type { Folio } from '../folio/folio.ts';
import type { Head } from '../folio/head.ts';
import { resolveParagraph, resolveParagraphStyle, resolveSpan } from '../folio/resolve.ts';
import type { CharacterOverrides } from '../folio/styles.ts';
import type { Paragraph } from '../folio/story.ts';
import { same } from '../folio/same.ts';
import { paragraphsOf } from '../folio/traverse.ts';
import { lookName } from './lookName.ts';

type Named = Record<string, { id: string; name: string }>;

/**
 * Gives every look that was made by hand a style of its own, based on the one it stood on: places that look the same get the
 * same style, and nothing looks different afterwards. Works in place.
 */
export function nameLooks(folio: Folio): void {
  const { head } = folio;
  // A look that has a style already, from the last time say, gets that.
  const paragraphStyles = new Map<string, string>();
  for (const s of byId(head.paragraphStyles))
    if (s.basedOn !== undefined && !s.role) paragraphStyles.set(canonicalJson([s.basedOn, s.paragraph, s.character]), s.id);
  const characterStyles = new Map<string, string>();
  for (const s of byId(head.characterStyles)) if (!s.role) characterStyles.set(canonicalJson([s.basedOn ?? null, s.character]), s.id);
  const styleOf = (base: string, look: HandLook): string => {
    const key = canonicalJson([base, look.paragraph, look.character]);
    const known = paragraphStyles.get(key);
    if (known !== undefined) return known;
    const above = head.paragraphStyles[base]?.name ?? base;
    const { id, name } = free(head.paragraphStyles, base, `${above}, ${lookName(look, head.swatches)}`);
    head.paragraphStyles[id] = { id, name, basedOn: base, ...look };
    paragraphStyles.set(key, id);
    return id;
  };
  const spanStyleOf = (base: string | undefined, look: CharacterOverrides): string => {
    const key = canonicalJson([base ?? null, look]);
    const known = characterStyles.get(key);
    if (known !== undefined) return known;
    const words = lookName({ paragraph: {}, character: look }, head.swatches);
    const above = base === undefined ? undefined : head.characterStyles[base]?.name;
    const { id, name } = free(head.characterStyles, base ?? 'look', above === undefined ? capitalised(words) : `${above}, ${words}`);
    head.characterStyles[id] = { id, name, ...(base !== undefined && { basedOn: base }), character: look };
    characterStyles.set(key, id);
    return id;
  };
  for (const story of byId(folio.stories))
    for (const p of paragraphsOf(story)) {
      lift(folio.head, p);
      dropNeedless(head, p);
      const { look, place } = lookOfParagraph(p);
      if (!isEmpty(look.paragraph) || !isEmpty(look.character)) {
        p.style = styleOf(p.style, look);
        keep(p, 'overrides', place.paragraph);
        keep(p, 'character', place.character);
      }
      for (const node of p.content) {
        if (node.type !== 'span') continue;
        const own = lookOfSpan(node);
        if (isEmpty(own.look)) continue;
        node.style = spanStyleOf(node.style, own.look);
        keep(node, 'overrides', own.place);
      }
    }
}

/**
 * A paragraph whose whole text has one look has it as a paragraph. Not where something beside its text takes the
 * paragraph's own look: a list's label, an initial, a tab's leader, a field, a note.
 */
function lift(head: Head, p: Paragraph): void {
  const [first] = p.content;
  if (first?.type !== 'span' || !first.overrides) return;
  const { list, dropCapital } = resolveParagraph(head, p).paragraph;
  if (list || dropCapital) return;
  const { overrides } = first;
  const alike = p.content.every(
    (n) => n.type === 'softReturn' || (n.type === 'span' && n.style === undefined && same(n.overrides ?? {}, overrides)),
  );
  if (!alike) return;
  p.character = { ...p.character, ...first.overrides };
  for (const node of p.content) if (node.type === 'span') delete node.overrides;
}

/** Takes out properties that say what the styles say anyway. */
function dropNeedless(head: Head, p: Paragraph): void {
  const style = resolveParagraphStyle(head, p.style);
  without(p, 'overrides', style.paragraph);
  without(p, 'character', style.character);
  const base = resolveParagraph(head, p).character;
  for (const node of p.content)
    if (node.type === 'span' && node.overrides)
      without(node, 'overrides', resolveSpan(head, base, node.style === undefined ? {} : { style: node.style }));
}

function without<K extends string, T extends { [key in K]?: object }>(holder: T, key: K, said: object): void {
  const own = holder[key];
  if (!own) return;
  const rest = Object.entries(own).filter(([k, v]) => !same(v, (said as Record<string, unknown>)[k]));
  keep(holder, key, Object.fromEntries(rest) as NonNullable<T[K]>);
}

function keep<K extends string, T extends { [key in K]?: object }>(holder: T, key: K, rest: NonNullable<T[K]>): void {
  if (isEmpty(rest)) delete holder[key];
  else holder[key] = rest;
}

/** An id and a name that no other style of the kind has. */
function free(styles: Named, base: string, wanted: string): { id: string; name: string } {
  const stem = base.slice(0, 60).replace(/-look-\d+$/, '');
  const names = new Set(Object.values(styles).map((s) => s.name));
  let n = Object.keys(styles).length + 1;
  while (styles[`${stem}-look-${n}`]) n++;
  let name = wanted;
  for (let i = 2; names.has(name); i++) name = `${wanted} (${i})`;
  return { id: `${stem}-look-${n}`, name };
}

/** In an order that is the same wherever the document is kept: what the names and numbers of new styles depend on. */
const byId = <T extends { id: string }>(record: Record<string, T>): T[] => Object.values(record).sort((a, b) => (a.id < b.id ? -1 : 1));
const capitalised = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
