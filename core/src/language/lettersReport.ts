import { z } from 'zod';
import type { FontFace } from '../compose/fontFace.ts';
import { hasSerifs } from '../compose/serifs.ts';
import type { FontOrigin, FontSet } from '../compose/fontSet.ts';
import { lettersOf } from './lettersOf.ts';

/** Letters that are named of those that a family lacks, and families that are proposed. */
const NAMED = 60;
const PROPOSED = 4;

const Proposal = z.object({
  family: z.string(),
  origin: z.enum(['document', 'library', 'shipped']),
  /** How many of the letters that are asked for it has. */
  has: z.number(),
  /** What speaks for it and against it, in plain words. */
  says: z.array(z.string()),
});

/** A family that a document is set in, and what it has of the letters of a language. */
export const FamilyLetters = z.object({
  family: z.string(),
  /** The family that its text is set with. */
  by: z.string(),
  has: z.number(),
  of: z.number(),
  /** The first of those that it lacks. */
  lacks: z.array(z.string()),
  /** Families that lend what it lacks, as it is now, and how many letters each. */
  lent: z.array(z.object({ family: z.string(), letters: z.number() })),
  proposals: z.array(Proposal),
});
export type FamilyLetters = z.infer<typeof FamilyLetters>;

export const LettersReport = z.object({ families: z.array(FamilyLetters), known: z.boolean() });
export type LettersReport = z.infer<typeof LettersReport>;

/** A face of the fonts at hand, and where it comes from. */
export interface FaceAtHand {
  face: FontFace;
  origin: FontOrigin;
}

/**
 * Which families of a document lack which letters of a language, before any text of it is there; for each, the families at hand that have
 * them and look most alike. `fonts`: what the document was set with; `all`: every face there is. `known` is false where nobody has told
 * what the language is written with.
 */
export function lettersReport(language: string, fonts: FontSet, all: readonly FaceAtHand[], order: readonly string[] = []): LettersReport {
  const letters = lettersOf(language);
  if (!letters) return { families: [], known: false };
  const codes = letters.map((l) => l.codePointAt(0)!);
  const byFamily = new Map<string, FaceAtHand[]>();
  for (const one of all) byFamily.set(one.face.family, [...(byFamily.get(one.face.family) ?? []), one]);
  const covering = new Map([...byFamily].map(([family, faces]) => [family, codes.filter((c) => faces[0]!.face.glyphFor(c) !== 0).length]));
  const asked = new Map<string, FontFace[]>();
  for (const { family, face } of fonts.asked) asked.set(family, [...(asked.get(family) ?? []), face]);
  const families = [...asked].map(([family, faces]): FamilyLetters => {
    const [face] = faces as [FontFace];
    const lacking = codes.filter((c) => face.glyphFor(c) === 0);
    const lent = new Map<string, number>();
    for (const code of lacking) {
      const by = fonts.fallback(code, face, order)?.family;
      if (by !== undefined) lent.set(by, (lent.get(by) ?? 0) + 1);
    }
    return {
      family,
      by: face.family,
      has: codes.length - lacking.length,
      of: codes.length,
      lacks: lacking.slice(0, NAMED).map((c) => String.fromCodePoint(c)),
      lent: [...lent].map(([name, n]) => ({ family: name, letters: n })),
      proposals: lacking.length ? proposalsFor(faces, byFamily, covering, codes.length - lacking.length, codes.length) : [],
    };
  });
  return { families: families.sort((a, b) => a.has / a.of - b.has / b.of || (a.family < b.family ? -1 : 1)), known: true };
}

/** Families that have most of the letters that one lacks, those that have most first, and of these the ones that look most alike. */
function proposalsFor(
  faces: readonly FontFace[],
  byFamily: ReadonlyMap<string, FaceAtHand[]>,
  covering: ReadonlyMap<string, number>,
  has: number,
  of: number,
): z.infer<typeof Proposal>[] {
  const [face] = faces as [FontFace];
  return (
    [...byFamily]
      // What closes less than half of the gap is no help.
      .filter(([family]) => family !== face.family && covering.get(family)! - has > (of - has) / 2)
      .map(([family, others]) => ({
        family,
        others,
        has: covering.get(family)!,
        ...alike(
          faces,
          others.map((o) => o.face),
        ),
      }))
      .sort((a, b) => b.has - a.has || a.distance - b.distance)
      .slice(0, PROPOSED)
      .map(({ family, others, has: n, says }) => ({ family, origin: others[0]!.origin, has: n, says }))
  );
}

/** The upright face of the most common weight: the one to look at. */
const mostPlain = (faces: readonly FontFace[]): FontFace => faces.reduce((best, f) => (plainness(f) < plainness(best) ? f : best));
const plainness = (f: FontFace): number => Math.abs(f.weight - 400) + (f.style === 'italic' ? 1000 : 0);

/** How wide small Latin letters are on average, beside the em. */
function letterWidth(face: FontFace): number {
  const glyphs = [...'abcdefghijklmnopqrstuvwxyz'].map((c) => face.glyphFor(c.charCodeAt(0)));
  return glyphs.reduce((sum, g) => sum + face.advanceOf(g), 0) / glyphs.length / face.unitsPerEm;
}

/** From this difference of widths on, beside the em, letters are seen to be wider or narrower (own choice). */
const SEEN = 0.03;

/** How unlike two families look: serifs or none, widths of letters, heights of small letters, weights that there are. */
function alike(faces: readonly FontFace[], others: readonly FontFace[]): { distance: number; says: string[] } {
  const [one, other] = [mostPlain(faces), mostPlain(others)];
  const says: string[] = [];
  let distance = 0;
  const [ours, theirs] = [hasSerifs(one), hasSerifs(other)];
  if (ours !== null && theirs !== null) {
    says.push(ours === theirs ? (ours ? 'serifs as well' : 'no serifs either') : theirs ? 'has serifs' : 'has no serifs');
    if (ours !== theirs) distance += 1;
  } else distance += 0.5;
  const wider = letterWidth(other) - letterWidth(one);
  says.push(Math.abs(wider) < SEEN ? 'as wide' : wider > 0 ? 'wider' : 'narrower');
  distance += Math.abs(wider) * 4;
  distance += Math.abs(other.xHeight / other.unitsPerEm - one.xHeight / one.unitsPerEm) * 2;
  const nearest = (f: FontFace): number => Math.min(...others.map((o) => Math.abs(o.weight - f.weight) + (o.style === f.style ? 0 : 50)));
  const weights = faces.filter((f) => !others.some((o) => o.weight === f.weight));
  distance += faces.reduce((sum, f) => sum + nearest(f), 0) / faces.length / 400;
  if (weights.length) says.push(`has no weight ${[...new Set(weights.map((f) => f.weight))].sort((a, b) => a - b).join(', ')}`);
  if (faces.some((f) => f.style === 'italic') && !others.some((o) => o.style === 'italic')) says.push('has no italic');
  return { distance, says };
}
