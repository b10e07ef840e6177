import type { Folio } from '../../folio/folio.ts';
import { paragraphRole } from '../../folio/resolve.ts';
import { headingLevel } from '../../structure/outline.ts';

export interface StyleName {
  id: string;
  /** As people see it. */
  name: string;
  /** Other names of the same style: the document's own, where the standard's stands for it. */
  alias: string | undefined;
}
export interface StyleNames {
  paragraph: ReadonlyMap<string, StyleName>;
  character: ReadonlyMap<string, StyleName>;
  table: ReadonlyMap<string, StyleName>;
  /** Styles of the document whose names are not as they were, by the kind and id: what collided, or could not be a name. */
  changed: ReadonlyMap<string, { from: string; to: string }>;
}

/** The style that holds where nothing is said; the name is the standard's (ISO/IEC 29500-1, 17.7.4.9). */
export const DEFAULT_STYLE: StyleName = { id: 'Normal', name: 'Normal', alias: undefined };
const LONGEST = 250;

/** A name that a list of names cannot be broken at: those are told with commas between them (17.7.4.1). */
const clean = (name: string): string =>
  name
    .normalize('NFC')
    .replace(/[\p{Cc}\p{Cf}\\{};]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .replace(/ ?, ?/g, ' · ')
    .trim()
    .slice(0, LONGEST) || 'Style';

/**
 * Names of styles as the format can hold them: different from each other whatever their capitals, and without what separates
 * names. With `standardHeadings`, the style that most headings of a level have takes the standard's name, “heading 1”, by which
 * programs know them, and keeps its own as another.
 */
export function styleNames(folio: Folio, standardHeadings: boolean): StyleNames {
  const { head } = folio;
  const ids = new Set(['normal', 'defaultparagraphfont', 'tablenormal', 'nolist']);
  const names = new Set(['normal', 'default paragraph font', 'normal table', 'no list']);
  const changed = new Map<string, { from: string; to: string }>();
  const free = (taken: Set<string>, wanted: string, separator: string): string => {
    let name = wanted;
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${wanted}${separator}${n}`;
    taken.add(name.toLowerCase());
    return name;
  };
  const idFor = (name: string): string =>
    free(
      ids,
      name
        .normalize('NFKD')
        .replace(/[^A-Za-z0-9]+/g, '')
        .slice(0, 200) || 'Style',
      '',
    );
  const headings = standardHeadings ? usualHeadings(folio) : new Map<string, number>();
  // The standard's own names are for those that mean them.
  for (const level of headings.values()) names.add(`heading ${level}`);
  const named = (kind: string, styles: Record<string, { id: string; name: string }>): Map<string, StyleName> =>
    new Map(
      Object.values(styles).map((style): [string, StyleName] => {
        const level = kind === 'paragraph' ? headings.get(style.id) : undefined;
        if (level !== undefined)
          return [style.id, { id: idFor(`Heading${level}`), name: `heading ${level}`, alias: free(names, clean(style.name), ' ') }];
        const name = free(names, clean(style.name), ' ');
        if (name !== style.name) changed.set(`${kind} ${style.id}`, { from: style.name, to: name });
        return [style.id, { id: idFor(name), name, alias: undefined }];
      }),
    );
  return {
    paragraph: named('paragraph', head.paragraphStyles),
    character: named('character', head.characterStyles),
    table: named('table', head.tableStyles),
    changed,
  };
}

/** Of each level the style that most headings have. */
function usualHeadings(folio: Folio): Map<string, number> {
  const counts = new Map<string, number>();
  for (const story of Object.values(folio.stories))
    for (const block of Object.values(story.blocks))
      if (block.kind === 'paragraph') counts.set(block.style, (counts.get(block.style) ?? 0) + 1);
  const out = new Map<string, number>();
  const best = new Map<number, number>();
  for (const { id } of Object.values(folio.head.paragraphStyles)) {
    const level = headingLevel(paragraphRole(folio.head, id).element);
    const count = counts.get(id) ?? 0;
    if (!level || count <= (best.get(level) ?? -1)) continue;
    for (const [other, its] of out) if (its === level) out.delete(other);
    best.set(level, count);
    out.set(id, level);
  }
  return out;
}
