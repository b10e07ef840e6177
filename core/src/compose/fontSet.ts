import type { Head } from '../folio/head.ts';
import { FontError, FontFace } from './fontFace.ts';

/** Where font bytes come from: the document's package, the library of a user, what ships with the program. */
export interface FontSource {
  origin: 'document' | 'library' | 'shipped';
  list(): { key: string; family: string; weight: number; style: 'normal' | 'italic' }[];
  bytes(key: string): Promise<Uint8Array>;
}

export interface FontProblem {
  code: 'font.substituted' | 'font.broken';
  family: string;
  weight: number;
  style: string;
  by?: string;
  says: string;
}

interface Wanted {
  family: string;
  weight: number;
  style: 'normal' | 'italic';
}

/**
 * The loaded fonts of a document. `match` finds a face by family, then style, then nearest weight, in
 * the order document → library → shipped; a family nobody has is replaced by the first face and
 * recorded once in `problems`.
 */
export class FontSet {
  readonly problems: FontProblem[] = [];
  private readonly matches = new Map<string, FontFace>();

  constructor(readonly faces: readonly FontFace[]) {
    if (!faces.length) throw new FontError('There is no font to set text with.');
  }

  match(family: string, weight: number, style: 'normal' | 'italic'): FontFace {
    const id = `${family}|${weight}|${style}`;
    let face = this.matches.get(id);
    if (!face) {
      const wanted = { family, weight, style };
      const exact = this.faces.filter((f) => sameFamily(f.family, family));
      face = nearest(exact.length ? exact : this.faces, wanted);
      if (!exact.length)
        this.problems.push({
          code: 'font.substituted',
          ...wanted,
          by: face.fullName,
          says: `${family} is not there; ${face.fullName} stands in for it.`,
        });
      this.matches.set(id, face);
    }
    return face;
  }

  /** A face other than `not` that has the code point: of the families in `order`, then any, in loading order. */
  fallback(codePoint: number, not: FontFace, order: readonly string[] = []): FontFace | undefined {
    const has = (f: FontFace): boolean => f !== not && f.glyphFor(codePoint) !== 0;
    for (const family of order) {
      const faces = this.faces.filter((f) => sameFamily(f.family, family) && has(f));
      if (faces.length) return nearest(faces, not);
    }
    return this.faces.find((f) => f.weight === not.weight && f.style === not.style && has(f)) ?? this.faces.find(has);
  }
}

const sameFamily = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** CSS Fonts 4, section 5.2, in short: style first, then the weight that is least far away. */
function nearest(faces: readonly FontFace[], wanted: Wanted): FontFace {
  const distance = (f: FontFace): number =>
    (f.style === wanted.style ? 0 : 10000) + Math.abs(f.weight - wanted.weight) + (f.weight < wanted.weight ? 0.5 : 0);
  return faces.reduce((best, f) => (distance(f) < distance(best) ? f : best));
}

/** Every family, weight and style that the document's styles and spans may ask for. */
function wantedFamilies(head: Head): Set<string> {
  const families = new Set<string>(['source serif 4']);
  for (const style of [...Object.values(head.paragraphStyles), ...Object.values(head.characterStyles)])
    if (style.character.fontFamily) families.add(style.character.fontFamily.toLowerCase());
  for (const font of Object.values(head.fonts)) families.add(font.family.toLowerCase());
  for (const order of Object.values(head.fallbacks)) for (const family of order) families.add(family.toLowerCase());
  return families;
}

/**
 * Loads the faces a document can need. A broken file is skipped and recorded, never fatal. Faces of
 * families the document does not name are left alone, except the shipped stand-in.
 */
export async function loadFonts(head: Head, sources: readonly FontSource[]): Promise<FontSet> {
  const families = wantedFamilies(head);
  const faces: FontFace[] = [];
  const broken: FontProblem[] = [];
  const have = new Set<string>();
  for (const source of sources)
    for (const entry of source.list()) {
      const same = `${entry.family.toLowerCase()}|${entry.weight}|${entry.style}`;
      if (have.has(same) || !families.has(entry.family.toLowerCase())) continue;
      try {
        faces.push(new FontFace(entry.key, entry.family, entry.weight, entry.style, await source.bytes(entry.key)));
        have.add(same);
      } catch (error) {
        broken.push({
          code: 'font.broken',
          family: entry.family,
          weight: entry.weight,
          style: entry.style,
          says: `${entry.family} ${entry.weight} cannot be used: ${error instanceof Error ? error.message : 'it could not be read'}`,
        });
      }
    }
  const set = new FontSet(faces);
  set.problems.push(...broken);
  return set;
}
