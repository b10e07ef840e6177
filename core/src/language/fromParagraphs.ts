import { Edition } from '../folio/edition.ts';
import type { TranslatedUnit } from '../folio/edition.ts';
import type { Folio } from '../folio/folio.ts';
import type { Inline, Paragraph, Story } from '../folio/story.ts';
import { pairCodes, signaturesOf } from './codes.ts';
import { cutIntoSegments } from './cut.ts';
import { joined } from './parts.ts';
import { withCodesOf } from './standing.ts';
import { codedParagraph } from './unitsOf.ts';

/** Units of an edition from paragraphs that are there in the other language, with their looks, links and notes. */
export function unitsFromParagraphs(folio: Folio, texts: Readonly<Record<string, readonly Inline[]>>): Record<string, TranslatedUnit> {
  const units: Record<string, TranslatedUnit> = {};
  for (const story of Object.values(folio.stories))
    for (const block of Object.values(story.blocks))
      if (block.kind === 'paragraph' && texts[block.id]) units[block.id] = unitFrom(folio, story, block, texts[block.id]!);
  return units;
}

function unitFrom(folio: Folio, story: Story, paragraph: Paragraph, content: readonly Inline[]): TranslatedUnit {
  const source = codedParagraph(folio, story, paragraph);
  const target = codedParagraph(folio, story, { ...paragraph, content: [...content] });
  const pairs = pairCodes(signaturesOf(target.codes), source.codes);
  const whole = { source: source.parts, target: joined(withCodesOf(target.parts, pairs)), state: 'translated' as const };
  // Where both have as many parts between tabs, they are segments of their own.
  const [cut, other] = [cutIntoSegments(source, '', null), cutIntoSegments({ parts: whole.target, codes: source.codes }, '', null)];
  const segments =
    cut.segments.length === other.segments.length &&
    cut.segments.length > 1 &&
    cut.codes.length === source.codes.length &&
    other.codes.length === source.codes.length
      ? cut.segments.map((s, i) => ({ ...s, target: other.segments[i]!.source, state: 'translated' as const }))
      : [whole];
  const before = segments.length > 1 ? cut.before : undefined;
  return { segments, ...(before && { before }), codes: signaturesOf(source.codes) };
}

/** Editions as documents had them before units: whole paragraphs. Nothing where they are of today. */
export function editionsOfBefore(folio: Folio, raw: Readonly<Record<string, unknown>>): Record<string, Edition> {
  const out: Record<string, Edition> = {};
  for (const [language, edition] of Object.entries(raw)) {
    const { targets, name } = edition as { targets?: Record<string, Inline[]>; name?: string };
    if (targets)
      out[language] = Edition.parse({ language, ...(name !== undefined && { name }), units: unitsFromParagraphs(folio, targets) });
  }
  return out;
}
