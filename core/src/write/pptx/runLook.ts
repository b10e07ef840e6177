import { solidHex } from '../../folio/colour.ts';
import type { CharacterProperties } from '../../folio/styles.ts';
import { thousandths } from '../ooxml/lengths.ts';
import type { Xml } from '../assets/xml.ts';
import { el } from '../assets/xml.ts';
import type { SlideContext } from './slideContext.ts';

type LookContext = Pick<SlideContext, 'folio' | 'fonts' | 'replacements'>;

/** Hundredths of a point, within what the format allows (ISO/IEC 29500-1, 20.1.10.74 and 20.1.10.75). */
const hundredths = (points: number, least: number, most: number): number => Math.min(most, Math.max(least, Math.round(points * 100)));

/** How far what stands higher or lower is moved, as a share of its size (common practice). */
const RAISED = { normal: 0, superscript: 0.3, subscript: -0.25 } as const;

const colour = (hex: string): Xml => el('a:solidFill', {}, el('a:srgbClr', { val: hex.slice(1).toUpperCase() }));

/** The face by which a program finds a look’s typeface. */
export function faceOf(c: CharacterProperties, { fonts, replacements }: LookContext): { family: string; bold: boolean; italic: boolean } {
  const face = fonts.match(c).familyOfFour;
  return { ...face, family: replacements.get(face.family.toLowerCase()) ?? face.family };
}

/**
 * The look of characters (ISO/IEC 29500-1, 21.1.2.3.9, CT_TextCharacterProperties): attributes, then ink, line under it, typefaces, and
 * where it leads. `name`: of the element that says it.
 */
export function runLook(
  name: 'a:rPr' | 'a:endParaRPr' | 'a:defRPr',
  c: CharacterProperties,
  context: LookContext,
  press: Xml | null = null,
): Xml {
  const { swatches } = context.folio.head;
  const { family, bold, italic } = faceOf(c, context);
  const lineBelow = c.underline?.paint ? el('a:uFill', {}, colour(solidHex(c.underline.paint, swatches))) : null;
  const spacing = hundredths((c.tracking / 1000) * c.size, -400_000, 400_000);
  return el(
    name,
    {
      lang: c.language || undefined,
      sz: hundredths(c.size, 100, 400_000),
      b: bold ? 1 : 0,
      i: italic ? 1 : 0,
      u: c.underline ? 'sng' : undefined,
      strike: c.strike ? 'sngStrike' : undefined,
      // From this size on pairs are kerned: all of it, or none.
      kern: c.kerning === 'font' ? 0 : 400_000,
      cap: c.capitals === 'normal' ? undefined : c.capitals,
      spc: spacing || undefined,
      baseline: thousandths(RAISED[c.position]) || undefined,
      dirty: 0,
    },
    colour(solidHex(c.fill, swatches)),
    lineBelow,
    ['a:latin', 'a:ea', 'a:cs'].map((script) => el(script, { typeface: family })),
    press,
  );
}
