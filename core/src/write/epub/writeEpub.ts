import type { FlowBlock, FlowSection } from '../../structure/flow.ts';
import { escape } from '../../paint/svg/markup.ts';
import { accessibilityOf } from '../book/accessibility.ts';
import { Book, bookText } from '../book/book.ts';
import { bookJob } from '../book/bookSounds.ts';
import { addCover } from '../book/cover.ts';
import type { PackageFacts } from '../book/packageDocument.ts';
import { navigationDocument, wordsFor } from '../book/navigation.ts';
import { BASE_CSS } from '../reflow/baseCss.ts';
import { prepareFlow } from '../reflow/prepareFlow.ts';
import type { OutlineEntry } from '../reflow/prepareFlow.ts';
import { scopeOf } from '../scope.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import type { EpubSettings } from './settings.ts';

/** Writes the e-book that reflows: one package of live text, styled by what the document’s styles say. */
export async function* writeEpub(job: WriteJob<EpubSettings>): AsyncGenerator<OutputFile> {
  yield Book.file(job, async (book) => fill(await bookJob(job), book));
}

async function fill(job: WriteJob<EpubSettings>, book: Book): Promise<PackageFacts> {
  const { folio, composition, settings } = job;
  const title = settings.title || folio.head.metadata.title;
  const flow = await prepareFlow(job, {
    fileOf: (i) => `text-${String(i).padStart(3, '0')}.xhtml`,
    split: true,
    book: true,
    lists: 'lists',
    pageMarks: settings.pageList,
    namesFonts: settings.fonts !== 'reader',
  });
  const { language } = flow;
  const words = wordsFor(language);
  const cover = await addCover(job, scopeOf(folio, composition, settings), book);
  if (cover)
    await book.addText('cover.xhtml', bookText({ language, title: title || words.cover, body: coverBody(words.cover, title, cover) }));
  for (const file of flow.files)
    await book.addText(file.name, bookText({ language, title: file.title, body: `<body>\n${flow.body(file)}\n</body>` }));
  const outline = flow.outline.filter((o) => o.level <= settings.depth);
  const contents: OutlineEntry[] = outline.length ? outline : [{ level: 1, text: title || words.text, href: flow.files[0]!.name }];
  await book.addNavigation(
    navigationDocument({
      title: title || words.contents,
      language,
      words,
      outline: contents,
      pages: flow.pages,
      landmarks: [
        ...(cover ? [{ type: 'cover', title: words.cover, href: 'cover.xhtml' }] : []),
        { type: 'bodymatter', title: words.text, href: flow.files[0]!.name },
      ],
    }),
  );
  for (const p of flow.pictures) await book.add(p.path, p.mediaType, p.bytes);
  const faces = settings.fonts === 'reader' ? [] : await book.addFonts(flow.fonts.characters, settings.fonts === 'scrambled');
  const rules = faces.map(
    ({ face, path }) =>
      `@font-face {\n  font-family: "${face.family}";\n  font-weight: ${face.weight};\n  font-style: ${face.style};\n  src: url("${path}") format("woff2");\n}`,
  );
  // After the texts: a sheet holds what they asked for.
  await book.add('style.css', 'text/css', [rules.join('\n'), BASE_CSS, flow.styles.css(), settings.css].filter(Boolean).join('\n') + '\n');
  const decorations = new Set(folio.head.structure.decorations);
  const figures = flow.sections.flatMap((s) => s.blocks.flatMap(figuresIn)).filter((f) => flow.shows(f.item.id));
  return {
    title,
    language,
    accessibility: accessibilityOf({
      pictures: figures.map((f) => ({ described: !!f.item.alt || decorations.has(f.item.id) })),
      tables: flow.sections.some(hasTable),
      outline: outline.length > 0,
      pages: flow.pages.length ? 'marked' : 'none',
      reflows: true,
    }),
  };
}

const hasTable = (section: FlowSection): boolean => section.blocks.some((b) => b.kind === 'table');

function figuresIn(block: FlowBlock): Extract<FlowBlock, { kind: 'figure' }>[] {
  if (block.kind === 'figure') return [block];
  if (block.kind === 'paragraph') return block.inline.map((i) => i.figure);
  return block.kind === 'box' ? block.blocks.flatMap(figuresIn) : [];
}

const coverBody = (word: string, title: string, picture: string): string =>
  `<body epub:type="cover">\n<section epub:type="cover" aria-label="${escape(word)}">\n<img role="doc-cover" src="${picture}" alt="${escape(title ? `${word}: ${title}` : word)}"/>\n</section>\n</body>`;
