import { z } from 'zod';
import type { FontSet } from '../compose/fontSet.ts';

/** A family that a document's text is set in: what it is set with, and what a designer should know of that. */
export const FamilyReport = z.object({
  family: z.string(),
  /** Where its faces come from; `standIn` where nobody has it and another family is taken. */
  from: z.enum(['document', 'library', 'shipped', 'standIn']),
  /** The family that its text is set with. */
  by: z.string(),
  faces: z.array(z.object({ weight: z.number(), style: z.enum(['normal', 'italic']) })),
  /** Characters that it lacks and another font lends. */
  lent: z.array(z.object({ character: z.string(), by: z.string() })),
  /** Whether its maker lets documents carry it. */
  mayEmbed: z.boolean(),
});
export type FamilyReport = z.infer<typeof FamilyReport>;

/** The families that text asked for while a document was set, by name. */
export function fontReport(fonts: FontSet): FamilyReport[] {
  const families = new Map<string, FamilyReport>();
  for (const { family, weight, style, face, standsIn } of fonts.asked) {
    const key = family.toLowerCase();
    let report = families.get(key);
    if (!report) {
      const from = standsIn ? 'standIn' : (fonts.origins.get(face) ?? 'shipped');
      families.set(key, (report = { family, from, by: face.family, faces: [], lent: [], mayEmbed: true }));
    }
    if (!report.faces.some((f) => f.weight === weight && f.style === style)) report.faces.push({ weight, style });
    report.mayEmbed &&= face.mayEmbed;
    for (const [code, other] of fonts.lent.get(face) ?? []) {
      const character = String.fromCodePoint(code);
      if (!report.lent.some((l) => l.character === character)) report.lent.push({ character, by: other.family });
    }
  }
  return [...families.values()].sort((a, b) => (a.family.toLowerCase() < b.family.toLowerCase() ? -1 : 1));
}
