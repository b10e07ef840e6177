import type { FieldSources } from '../../compose/fieldText.ts';
import { listLabels } from '../../compose/listLabels.ts';
import type { ListLabel } from '../../compose/listLabels.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Story } from '../../folio/story.ts';
import { readText } from '../../folio/text.ts';
import { placeOfPage, printedNumber } from '../../folio/traverse.ts';
import type { FlowBlock, FlowParagraph, FlowSection } from '../../structure/flow.ts';

/** What fields of running text show, and what stands before paragraphs. */
export interface FlowFields {
  sources: Omit<FieldSources, 'page'>;
  /** The number or bullet before a paragraph. */
  label(story: Story, paragraph: string): string | undefined;
  /** The number printed on a page. */
  printed(page: string): string;
}

export function flowFields(folio: Folio, sections: readonly FlowSection[]): FlowFields {
  const printed = (page: string): string => {
    const place = placeOfPage(folio, page);
    return place ? printedNumber(place) : '';
  };
  const labels = new Map<Story, Map<string, ListLabel>>();
  const labelsOf = (story: Story): Map<string, ListLabel> => {
    let known = labels.get(story);
    if (!known) labels.set(story, (known = listLabels(folio.head, story, story.order)));
    return known;
  };
  const storyOf = new Map(Object.values(folio.stories).flatMap((s) => Object.keys(s.blocks).map((b) => [b, s] as const)));
  const pageOf = new Map<string, string>();
  const sectionOn = new Map<string, string>();
  const visit = (b: FlowBlock, section: FlowSection): void => {
    if (b.kind === 'pageMark') sectionOn.set(b.page, sectionTitle(section));
    else if (b.kind === 'paragraph') pageOf.set(b.paragraph.id, b.page);
    else if (b.kind === 'figure') b.captions.forEach((c) => visit(c, section));
    else if (b.kind === 'box') b.blocks.forEach((inner) => visit(inner, section));
  };
  for (const s of sections) for (const b of s.blocks) visit(b, s);
  return {
    sources: {
      pageOf: (id) => (pageOf.has(id) ? printed(pageOf.get(id)!) : undefined),
      labelOf: (id) => (storyOf.has(id) ? labelsOf(storyOf.get(id)!).get(id)?.text.trim() : undefined),
      sectionOn: (page) => sectionOn.get(page),
    },
    label: (story, id) => labelsOf(story).get(id)?.text,
    printed,
  };
}

export const sectionTitle = ({ start }: { start: FlowParagraph | null }): string => (start ? readText(start.paragraph).trim() : '');
