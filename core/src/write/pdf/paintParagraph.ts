import type { GlyphRun } from '../../compose/marks.ts';
import { resolveParagraph } from '../../folio/resolve.ts';
import { transformRect } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import { paintRun } from '../../paint/pdf/paintItem.ts';
import type { PdfCanvas, StructContent, StructElement } from '../../paint/pdf/pdfCanvas.ts';
import type { ParagraphUnit } from '../../structure/reading.ts';
import { pageDestination } from '../../structure/pageDestination.ts';
import type { PaintedLeaf } from '../pages/paintedPage.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { PdfSettings } from './settings.ts';
import type { TaggedPart } from './tagTree.ts';

/** Paints a paragraph as stretches of tagged content, links apart from plain text. */
export function paintParagraph(
  job: WriteJob<PdfSettings>,
  canvas: PdfCanvas,
  scope: Scope,
  item: PaintedLeaf,
  inside: (draw: () => void) => void,
  unit: ParagraphUnit,
  page: string,
): TaggedPart[] {
  const story = job.folio.stories[unit.story]!;
  const paragraph = story.blocks[unit.paragraph];
  const own = paragraph?.kind === 'paragraph' ? resolveParagraph(job.folio.head, paragraph).character.language : '';
  const stretches: {
    link: string | undefined;
    lang: string | undefined;
    drawn: boolean;
    draws: (() => void)[];
    boxes: Rect[];
    text: string;
  }[] = [];
  for (const line of unit.lines)
    line.runs.forEach((run, i) => {
      if (run.decoration) return;
      const link = run.link;
      let stretch = stretches[stretches.length - 1];
      const drawn = !run.font.mayEmbed;
      // Words in another language say so (ISO 32000-1, 14.9.2).
      const lang = run.language === own ? undefined : run.language;
      if (!stretch || stretch.link !== link || stretch.lang !== lang || stretch.drawn !== drawn)
        stretches.push((stretch = { link, lang, drawn, draws: [], boxes: [], text: '' }));
      const last = i === line.runs.length - 1 && line.spaceAtEnd;
      // Where a tab left room, a space keeps the words apart when they are copied.
      const space = last || nextRead(line.runs, i)?.joint === 'tab';
      stretch.draws.push(() => paintRun(canvas, line, run, space));
      stretch.boxes.push({ x: line.x + run.x, y: line.baseline - line.ascent, width: run.width, height: line.ascent + line.descent });
      stretch.text += run.text + (space ? ' ' : '');
    });
  const tag = unit.role.element;
  return stretches.map((stretch): TaggedPart => {
    const draw = (name: string) => canvas.content(name, () => inside(() => stretch.draws.forEach((d) => d())));
    const target = stretch.link === undefined ? null : scope.targets.of(story.links[stretch.link]?.destination, page);
    const spoken = stretch.lang === undefined ? {} : { lang: stretch.lang };
    if (!target && stretch.drawn) return { element: span(canvas, { ...spoken, actual: stretch.text }, draw('Span')) };
    if (!target && stretch.lang !== undefined) return { element: span(canvas, spoken, draw('Span')) };
    if (!target) return { content: draw(/^h[1-6]$/.test(tag) ? tag.toUpperCase() : 'P') };
    const element: StructElement = canvas.element('Link', spoken);
    element.add(stretch.drawn ? span(canvas, { actual: stretch.text }, draw('Span')) : draw('Link'));
    for (const box of stretch.boxes) {
      const onSpread = transformRect(item.transform, box);
      canvas.linkTo(
        onSpread,
        'page' in target ? { page: pageDestination(target.page) } : target,
        story.links[stretch.link!]?.title ?? stretch.text,
        element,
      );
    }
    element.end();
    return { element };
  });
}

/** The next run of a line that is read. */
const nextRead = (runs: readonly GlyphRun[], i: number): GlyphRun | undefined => runs.slice(i + 1).find((r) => !r.decoration);

/** Words with what is said of them: their language, or the text that letters drawn as shapes stand for (ISO 32000-1, 14.9.4). */
function span(canvas: PdfCanvas, said: { lang?: string; actual?: string }, content: StructContent): StructElement {
  const element = canvas.element('Span', said);
  element.add(content);
  element.end();
  return element;
}
