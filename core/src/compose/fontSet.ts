import type { Head } from '../folio/head.ts';
import type { CharacterProperties } from '../folio/styles.ts';
import { FontFace } from './fontFace.ts';
import { FontError } from './fontTables.ts';
import { loadHyphenation } from './hyphenationPatterns.ts';
import { standInFor } from './standIns.ts';

/** Where font bytes come from: the document's package, the library of a user, what ships with the program. */
export type FontOrigin = 'document' | 'library' | 'shipped';
export interface FontSource {
  origin: FontOrigin;
  list(): { key: string; family: string; weight: number; style: 'normal' | 'italic' }[];
  bytes(key: string): Promise<Uint8Array>;
  /** What tells a file's bytes from all others, where that is known without reading it. */
  content?(key: string): string;
}

/** A font file that cannot be used. */
export interface BrokenFont {
  family: string;
  says: string;
}

/** A family in a weight and style that text asked for, and the face that it is set in. */
export interface AskedFont {
  family: string;
  weight: number;
  style: 'normal' | 'italic';
  face: FontFace;
  standsIn: boolean;
}

/** A face that is there and not loaded: it is of normal width. */
export interface AbsentFace {
  key: string;
  family: string;
  weight: number;
  style: 'normal' | 'italic';
  stretch: 100;
}

interface Wanted {
  weight: number;
  style: 'normal' | 'italic';
  stretch: number;
}
type FontLook = Pick<CharacterProperties, 'fontFamily' | 'fontWeight' | 'fontStyle' | 'fontStretch'>;

/**
 * The loaded fonts of a document. `match` finds a face by family, then width, style and nearest weight, in
 * the order document → library → shipped; a family nobody has is replaced by what the document chose, by one of
 * its kind, or by the first face: `asked` tells of it.
 */
export class FontSet {
  readonly broken: BrokenFont[] = [];
  /** Every look that was asked for, and the face it got. */
  readonly asked: AskedFont[] = [];
  /** Characters that a face lacks and no family was named for, with the faces that have them. */
  readonly lent = new Map<FontFace, Map<number, FontFace>>();
  /** Keys of absent faces that text has asked for meanwhile: it was set in others, and is to be set anew once these are there. */
  readonly awaited = new Set<string>();
  private readonly matches = new Map<string, FontFace>();
  /** Looks do not change: nearly all are asked for again and again. */
  private readonly byLook = new WeakMap<FontLook, FontFace>();

  constructor(
    readonly faces: readonly FontFace[],
    /** What the document chose to stand in for families nobody has. */
    private readonly standIns: Readonly<Record<string, string>> = {},
    /** Where faces came from. */
    readonly origins: ReadonlyMap<FontFace, FontOrigin> = new Map(),
    /** The faces in order, with those that are loaded once text asks for them. */
    private readonly all: readonly (FontFace | AbsentFace)[] = faces,
  ) {
    if (!faces.length) throw new FontError('There is no font to set text with.');
  }

  /** The face of exactly this family, weight and style, if it is at hand. */
  faceOf({ family, weight, style }: { family: string; weight: number; style: string }): FontFace | undefined {
    return this.faces.find((f) => f.family === family && f.weight === weight && f.style === style);
  }

  match(look: FontLook): FontFace {
    let face = this.byLook.get(look);
    if (!face) this.byLook.set(look, (face = this.find(look)));
    return face;
  }

  private find({ fontFamily: family, fontWeight: weight, fontStyle: style, fontStretch: stretch }: FontLook): FontFace {
    const id = `${family}|${weight}|${style}|${stretch}`;
    const known = this.matches.get(id);
    if (known) return known;
    const { all } = this;
    const exact = all.filter((f) => sameFamily(f.family, family));
    const standIn = exact.length ? undefined : standInFor(family, this.standIns);
    const instead = standIn === undefined ? [] : all.filter((f) => sameFamily(f.family, standIn));
    const best = nearest(exact.length ? exact : instead.length ? instead : all, { weight, style, stretch });
    const isHere = best instanceof FontFace;
    const face = isHere ? best : nearest(this.faces, { weight, style, stretch });
    this.matches.set(id, face);
    if (isHere) this.asked.push({ family, weight, style, face, standsIn: !exact.length });
    else this.awaited.add(best.key);
    return face;
  }

  /** A face other than `not` that has the code point: of the families in `order`, then any, in loading order; such are kept in `lent`. */
  fallback(codePoint: number, not: FontFace, order: readonly string[] = []): FontFace | undefined {
    const has = (f: FontFace): boolean => f !== not && f.glyphFor(codePoint) !== 0;
    // Which of them has it can only be seen in the files.
    for (const f of this.all) if (!(f instanceof FontFace)) this.awaited.add(f.key);
    for (const family of order) {
      const faces = this.faces.filter((f) => sameFamily(f.family, family) && has(f));
      if (faces.length) return nearest(faces, not);
    }
    const family = this.faces.find(has)?.family;
    // One family for all weights of a text: its letters belong together.
    const other =
      family === undefined
        ? undefined
        : nearest(
            this.faces.filter((f) => f.family === family && has(f)),
            not,
          );
    if (other) {
      const lent = this.lent.get(not) ?? new Map<number, FontFace>();
      this.lent.set(not, lent.set(codePoint, other));
    }
    return other;
  }
}

const sameFamily = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** CSS Fonts 4, section 5.2, in short: width first, narrower ones for a narrow face; then style, then the nearest weight. */
function nearest<F extends Wanted>(faces: readonly F[], wanted: Wanted): F {
  const width = (f: F): number =>
    Math.abs(f.stretch - wanted.stretch) + ((wanted.stretch <= 100 ? f.stretch > wanted.stretch : f.stretch < wanted.stretch) ? 1000 : 0);
  const distance = (f: F): number =>
    width(f) * 100_000 + (f.style === wanted.style ? 0 : 10000) + Math.abs(f.weight - wanted.weight) + (f.weight < wanted.weight ? 0.5 : 0);
  return faces.reduce((best, f) => (distance(f) < distance(best) ? f : best));
}

/** Families that ship for scripts the others lack, by language; loaded only for documents that speak it. */
const FAMILIES_BY_LANGUAGE: Record<string, string> = { ja: 'Zen Kaku Gothic New', he: 'Heebo', yi: 'Heebo' };

/** The shipped family for the script of a language, where common fonts have none of it. */
export const familyForLanguage = (language: string): string | undefined => FAMILIES_BY_LANGUAGE[language.split('-')[0]!.toLowerCase()];

/** Every family that a document may be set with, in lower case: what it names, what stands in for that, what its languages need. */
export function wantedFamilies(head: Head): Set<string> {
  const families = new Set<string>(['source serif 4']);
  const styles = [...Object.values(head.paragraphStyles), ...Object.values(head.characterStyles)];
  for (const style of styles) if (style.character.fontFamily) families.add(style.character.fontFamily.toLowerCase());
  for (const font of Object.values(head.fonts)) families.add(font.family.toLowerCase());
  for (const language of [head.metadata.language, ...Object.keys(head.fallbacks), ...styles.map((s) => s.character.language ?? '')]) {
    const family = familyForLanguage(language);
    if (family) families.add(family.toLowerCase());
  }
  for (const order of Object.values(head.fallbacks)) for (const family of order) families.add(family.toLowerCase());
  for (const family of Object.values(head.standIns)) families.add(family.toLowerCase());
  return families;
}

/** Faces that are in use: documents set in the same fonts share them, since each takes a copy of its file in the shaper's memory. */
const inUse = new Map<string, WeakRef<FontFace>>();
const forgotten = new FinalizationRegistry<string>((name) => {
  if (!inUse.get(name)?.deref()) inUse.delete(name);
});

/** Loads a face; a FontError says what keeps it from being used. */
export async function loadFace(
  { key, family, weight, style }: ReturnType<FontSource['list']>[number],
  source: FontSource,
): Promise<FontFace> {
  const load = async (): Promise<FontFace> => new FontFace(key, family, weight, style, await source.bytes(key));
  const content = source.content?.(key);
  if (content === undefined) return load();
  const name = JSON.stringify([content, key, family, weight, style]);
  const known = inUse.get(name)?.deref();
  if (known) return known;
  const face = await load();
  inUse.set(name, new WeakRef(face));
  forgotten.register(face, name);
  return face;
}

/** What `loadFonts` may leave for later. */
export interface LaterLoading {
  /** Shipped faces that are wanted by now, by their keys: others are loaded once text asks for them (`FontSet.awaited`). */
  faces: ReadonlySet<string>;
  /** Languages whose words have to be divided by now. */
  languages: Iterable<string>;
}

/** The face that everything can be set in for the moment. */
const isPlain = ({ weight, style }: { weight: number; style: string }): boolean => weight === 400 && style === 'normal';

/**
 * Loads what a document's text is set with: the faces it can need, and what words are divided by. A broken file is skipped and
 * recorded, never fatal; a fault of the shaper is. Faces of families the document does not name are left alone, except the shipped stand-in.
 */
export async function loadFonts(head: Head, sources: readonly FontSource[], later?: LaterLoading): Promise<FontSet> {
  await loadHyphenation(later?.languages);
  const families = wantedFamilies(head);
  const there = new Set(sources.flatMap((s) => s.list().map((f) => f.family.toLowerCase())));
  for (const family of [...families]) {
    const standIn = there.has(family) ? undefined : standInFor(family, head.standIns);
    if (standIn !== undefined) families.add(standIn.toLowerCase());
  }
  const faces: FontFace[] = [];
  const all: (FontFace | AbsentFace)[] = [];
  const origins = new Map<FontFace, FontOrigin>();
  const broken: BrokenFont[] = [];
  // Faces of one weight may differ in width: only another source's are passed over.
  const have = new Map<string, FontSource>();
  for (const source of sources)
    for (const entry of source.list()) {
      const same = `${entry.family.toLowerCase()}|${entry.weight}|${entry.style}`;
      if (have.get(same) !== undefined && have.get(same) !== source) continue;
      if (!families.has(entry.family.toLowerCase())) continue;
      if (later && source.origin === 'shipped' && !later.faces.has(entry.key) && !isPlain(entry)) {
        have.set(same, source);
        all.push({ ...entry, stretch: 100 });
        continue;
      }
      try {
        const face = await loadFace(entry, source);
        faces.push(face);
        all.push(face);
        origins.set(face, source.origin);
        have.set(same, source);
      } catch (error) {
        // The shaper itself has broken off, not the file: nothing that it says afterwards is to be trusted.
        if (error instanceof WebAssembly.RuntimeError) throw error;
        broken.push({
          family: entry.family,
          says: `${entry.family} ${entry.weight} cannot be used: ${error instanceof Error ? error.message : 'it could not be read'}`,
        });
      }
    }
  const set = new FontSet(faces, head.standIns, origins, all);
  set.broken.push(...broken);
  return set;
}
