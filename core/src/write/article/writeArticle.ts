import type { Folio } from '../../folio/folio.ts';
import { attrs, escape } from '../../paint/svg/markup.ts';
import { BASE_CSS } from '../reflow/baseCss.ts';
import { prepareFlow } from '../reflow/prepareFlow.ts';
import type { FlowFile, PreparedFlow } from '../reflow/prepareFlow.ts';
import { outputFile } from '../assets/outputFile.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import type { ArticleSettings } from './settings.ts';

/** A document in the order of its layout: without what was said of the order of reading. */
export const asOrdered = (folio: Folio, order: ArticleSettings['order']): Folio =>
  order === 'path' ? folio : { ...folio, head: { ...folio.head, structure: { ...folio.head.structure, strands: [] } } };

/** Writes the plain article: clean HTML with classes named after the document’s styles, pictures beside it. */
export async function* writeArticle(job: WriteJob<ArticleSettings>): AsyncGenerator<OutputFile> {
  const { settings } = job;
  const split = settings.files === 'sections';
  const flow = await prepareFlow(
    { ...job, folio: asOrdered(job.folio, settings.order) },
    {
      fileOf: (i) => (i === 1 ? 'index.html' : `section-${String(i).padStart(3, '0')}.html`),
      split,
      book: false,
      lists: settings.lists,
      pageMarks: false,
      namesFonts: true,
    },
  );
  const bodies = flow.files.map((f) => flow.body(f));
  // After the texts: a sheet holds what they asked for.
  const css = `${BASE_CSS}\n${flow.styles.css()}\n`;
  for (const p of flow.pictures) yield outputFile(p.path, p.mediaType, p.bytes);
  if (settings.styleSheet === 'beside') yield outputFile('style.css', 'text/css', css);
  for (const [i, f] of flow.files.entries()) yield outputFile(f.name, 'text/html', document(job, flow, f, bodies[i]!, css));
}

function document({ folio, settings }: WriteJob<ArticleSettings>, flow: PreparedFlow, file: FlowFile, body: string, css: string): string {
  const { metadata } = folio.head;
  const title = settings.title || metadata.title;
  const at = flow.files.indexOf(file);
  const meta = (name: string, content: string | undefined): string => (content ? `<meta${attrs({ name, content })}>\n` : '');
  const link = (rel: string, href: string | undefined): string => (href ? `<link${attrs({ rel, href })}>\n` : '');
  const style = {
    beside: link('stylesheet', 'style.css'),
    linked: link('stylesheet', settings.styleAddress),
    // A style sheet inside a page must not end it.
    inside: `<style>\n${css.replace(/<\//g, '<\\/')}</style>\n`,
    none: '',
  }[settings.styleSheet];
  const script = settings.scriptAddress ? `<script${attrs({ src: settings.scriptAddress })} defer></script>\n` : '';
  const whole = flow.files.length > 1 && file.title !== title ? `${file.title} – ${title}` : title;
  return `<!doctype html>
<html lang="${escape(flow.language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escape(whole)}</title>
${meta('description', metadata.description)}${meta('author', metadata.creators.join(', '))}${meta('keywords', metadata.subjects.join(', '))}${link('prev', flow.files[at - 1]?.name)}${link('next', flow.files[at + 1]?.name)}${style}${script}</head>
<body>
<main>
${asHtml(body)}
</main>
</body>
</html>
`;
}

/** Markup that is XML, as HTML writes it: languages are told once, and elements that are never closed are not. */
const asHtml = (markup: string): string => markup.replace(/ xml:lang="[^"]*"/g, '').replace(/<(br|img|col)([^>]*)\/>/g, '<$1$2>');
