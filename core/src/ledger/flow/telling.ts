import type { FontFace } from '../../compose/fontFace.ts';
import { headingLevel } from '../../structure/outline.ts';
import type { CharacterProperties, RoleElement } from '../../folio/styles.ts';

/** What a format of running text can tell of a document, as far as formats differ. */
export interface Telling {
  /** What a paragraph of a role is told as; `given`: as HTML tells it. */
  element(role: RoleElement, place: { listed: boolean; given: string }): string;
  /** Whether it tells what is around paragraphs: quotations, asides, figures. */
  surroundings: boolean;
  /** How it names a face; `asked`: what the document asks for, which another face may stand in for here. */
  face(face: FontFace, asked?: AskedFace): { family: string; weight: number; style: string };
  /** Sizes and weights of lines as it can write them, in points. */
  size(points: number): number;
  line(points: number): number;
  /** Whether numbers of lists are counted by it, so that they are no text. */
  countsLists: boolean;
  /** Whether it numbers notes itself. */
  countsNotes: boolean;
  /** Whether notes are paragraphs like others, after the text that refers to them. */
  notesInText: boolean;
  /** Whether all text has the ink of the document; else readers may see some in their own. */
  ownInk: boolean;
  /** Whether it has initials, and plays films and sounds. */
  initials: boolean;
  /** Whether they are said of a style; else they are made of letters that are there, in the text itself. */
  initialsByStyle: boolean;
  plays: boolean;
  /** Whether cells head others by their style; else by their place alone. */
  headsAnywhere: boolean;
  /** How many columns a table has at most: one with more goes on in another below it. */
  columns: number;
  /** Whether a font may be in it. */
  carries(face: FontFace): boolean;
}

type AskedFace = Pick<CharacterProperties, 'fontFamily' | 'fontWeight' | 'fontStyle'>;

/** Formats that name faces as the document does, so that they are seen wherever they are installed. */
const asAsked =
  (instead: ReadonlyMap<string, string>): Telling['face'] =>
  ({ family, weight, style }, asked) => {
    const named = asked ? { family: asked.fontFamily, weight: asked.fontWeight, style: asked.fontStyle } : { family, weight, style };
    return { ...named, family: instead.get(named.family.toLowerCase()) ?? named.family };
  };

/** HTML, and what is made of it. */
export const MARKUP: Telling = {
  element: (_, { given }) => given,
  surroundings: true,
  face: ({ family, weight, style }) => ({ family, weight, style }),
  size: (points) => points,
  line: (points) => points,
  countsLists: false,
  countsNotes: false,
  notesInText: false,
  ownInk: false,
  initials: true,
  initialsByStyle: true,
  plays: true,
  headsAnywhere: true,
  columns: Infinity,
  carries: (face) => face.mayEmbed,
};

/**
 * Documents of word processors: headings by their level, entries of lists by their numbers, all else by its style alone.
 * `instead`: families that others take the place of, by their names in small letters.
 */
export const wordProcessor = (instead: ReadonlyMap<string, string>, initials: boolean): Telling => ({
  element: (role, { listed }) => (headingLevel(role) ? role : listed ? 'li' : 'p'),
  surroundings: false,
  face: ({ familyOfFour: { family, bold, italic } }) => ({
    family: instead.get(family.toLowerCase()) ?? family,
    weight: bold ? 700 : 400,
    style: italic ? 'italic' : 'normal',
  }),
  // Half points; eighths of a point, and none thinner than a quarter (ISO/IEC 29500-1, 17.3.2.38 and 17.18.2).
  size: (points) => Math.round(points * 2) / 2,
  line: (points) => Math.max(0.25, Math.round(points * 8) / 8),
  countsLists: true,
  countsNotes: true,
  notesInText: false,
  ownInk: false,
  initials,
  initialsByStyle: false,
  plays: false,
  headsAnywhere: false,
  columns: 63,
  carries: (face) =>
    face.mayEmbedForEditing && (face.bytes[0] === 0 || face.bytes[0] === 0x74) && !instead.has(face.familyOfFour.family.toLowerCase()),
});

/** The same where text stands in placed boxes, which hold neither notes nor initials. */
export const wordBoxes = (instead: ReadonlyMap<string, string>): Telling => ({
  ...wordProcessor(instead, false),
  countsNotes: false,
  notesInText: true,
  ownInk: true,
});

/** Slides: text in placed boxes, without roles of its own; numbers of lists are told as what stands before their entries. */
export const slides = (instead: ReadonlyMap<string, string>): Telling => ({
  ...wordBoxes(instead),
  element: () => 'p',
  // Hundredths of a point (ISO/IEC 29500-1, 20.1.10.74).
  size: (points) => Math.round(points * 100) / 100,
  line: (points) => points,
  countsLists: false,
  columns: 75,
  carries: () => false,
});

/** Text documents of OpenDocument: headings by their level, lists counted, notes numbered, initials as the style says. */
export const openText = (instead: ReadonlyMap<string, string>): Telling => ({
  ...wordProcessor(instead, true),
  initialsByStyle: true,
  face: asAsked(instead),
  size: (points) => points,
  line: (points) => points,
  columns: Infinity,
  carries: () => false,
});

/** The same where text stands in placed boxes. */
export const openBoxes = (instead: ReadonlyMap<string, string>): Telling => ({
  ...openText(instead),
  countsNotes: false,
  notesInText: true,
  ownInk: true,
});

/** Slides of OpenDocument: lists are counted, faces are named by family, weight and style. */
export const openSlides = (instead: ReadonlyMap<string, string>): Telling => ({
  ...slides(instead),
  initials: true,
  initialsByStyle: true,
  element: (_, { listed }) => (listed ? 'li' : 'p'),
  face: asAsked(instead),
  size: (points) => points,
  countsLists: true,
  columns: Infinity,
});
