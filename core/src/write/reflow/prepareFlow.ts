import { noteNumbers } from '../../compose/notes.ts';
import type { Folio } from '../../folio/folio.ts';
import { readText } from '../../folio/text.ts';
import type { Inline, Story } from '../../folio/story.ts';
import { Cancelled } from '../../ports/ports.ts';
import { flowOf } from '../../structure/flow.ts';
import type { FlowBlock, FlowParagraph, FlowSection } from '../../structure/flow.ts';
import { headingLevel, outlineText } from '../../structure/outline.ts';
import { PICTURE_EXTENSIONS, pictureOf, shortHash } from '../assets/encodePictures.ts';
import type { PictureSettings } from '../assets/encodePictures.ts';
import { playedFile } from '../../folio/playedFile.ts';
import { scopeOf } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import { blocksMarkup, noteMarkup } from './blockMarkup.ts';
import { anchor } from './flowContext.ts';
import type { FlowContext, FlowPicture } from './flowContext.ts';
import { flowFields, sectionTitle } from './flowFields.ts';
import { drawnFigures, figuresIn, usualMeasure } from './flowFigures.ts';
import { FlowFonts } from './flowFonts.ts';
import { FlowStyles } from './flowStyles.ts';

export interface FlowSettings extends PictureSettings {
  pages: string;
  hiddenLayers: 'in' | 'out';
  /** Ids of items that alone go in. */
  only?: string;
  title: string;
  language: string;
}

/** How an output lays out the files of running text. All of its text files lie in one folder. */
export interface FlowLayout {
  /** The name of the file of a section, counted from 1. */
  fileOf(index: number): string;
  /** Whether every section has a file of its own. */
  split: boolean;
  book: boolean;
  lists: 'lists' | 'text';
  pageMarks: boolean;
  /** Whether text names the families that it is set in. */
  namesFonts: boolean;
}

export interface FlowFile {
  name: string;
  sections: FlowSection[];
  title: string;
}
export interface OutlineEntry {
  level: number;
  text: string;
  href: string;
}
export interface PreparedFlow {
  files: FlowFile[];
  sections: FlowSection[];
  styles: FlowStyles;
  fonts: FlowFonts;
  language: string;
  /** Pictures, films and sounds, with their paths from the text files. */
  pictures: { path: string; mediaType: string; bytes: Uint8Array }[];
  outline: OutlineEntry[];
  pages: { printed: string; href: string }[];
  /** Whether a picture of an item is in the result. */
  shows(item: string): boolean;
  /** The text of a file: what it says, with the notes at its end. */
  body(file: FlowFile): string;
}

/** Everything that running text is written from: its files, their styles, fonts and pictures. */
export async function prepareFlow(job: WriteJob<FlowSettings>, layout: FlowLayout): Promise<PreparedFlow> {
  const { folio, composition, settings } = job;
  const sections = flowOf(folio, composition, scopeOf(folio, composition, settings));
  const language = settings.language || folio.head.metadata.language;
  const files = filesOf(sections, layout, settings.title || folio.head.metadata.title);
  const used = usedParagraphs(sections);
  const fonts = new FlowFonts(folio, job.fonts, composition, used);
  const styles = new FlowStyles(folio, used, layout.namesFonts ? (look) => fonts.families(look) : () => []);
  const places = placesIn(files);
  const fields = flowFields(folio, sections);
  const numbers = new Map<Story, Map<string, string>>();
  const measure = usualMeasure(job);
  const { pictures, shown, played, playedItems } = await picturesOf(job, sections, measure);
  const contextFor = (file: FlowFile, notes: [Story, Inline & { type: 'note' }][]): FlowContext => {
    const at = (place: { file: FlowFile; id: string } | undefined): string | null =>
      place ? `${place.file === file ? '' : place.file.name}#${place.id}` : null;
    return {
      folio,
      styles,
      language,
      book: layout.book,
      lists: layout.lists,
      pageMarks: layout.pageMarks,
      paragraphAt: (id) => at(places.paragraphs.get(id)),
      pageAt: (id) => (layout.pageMarks ? at(places.pages.get(id)) : null),
      printed: fields.printed,
      measure,
      picture: (item) => shown.get(item.id) ?? null,
      played: (media) => played.get(media) ?? null,
      fields: fields.sources,
      label: fields.label,
      noteNumber: (story, id) => {
        let known = numbers.get(story);
        if (!known) numbers.set(story, (known = noteNumbers(story, story.order).numbers));
        return known.get(id) ?? '';
      },
      note: (story, node) => void notes.push([story, node]),
    };
  };
  const body = (file: FlowFile): string => {
    if (job.signal.aborted) throw new Cancelled();
    const notes: [Story, Inline & { type: 'note' }][] = [];
    const c = contextFor(file, notes);
    const text = file.sections
      .map((s) => {
        const isChapter = layout.book && s.start !== null && /^h[1-6]$/.test(s.start.role.element);
        const chapter = isChapter ? ' epub:type="chapter" role="doc-chapter"' : '';
        const label = s.start ? ` aria-labelledby="${anchor.paragraph(s.start.paragraph.id)}"` : '';
        return `<section${chapter}${label}>\n${blocksMarkup(s.blocks, c)}\n</section>`;
      })
      .join('\n');
    // A note may refer to another: its text joins the end as well.
    let after = '';
    for (let i = 0; i < notes.length && i < 10_000; i++) after += noteMarkup(notes[i]![0], notes[i]![1], c) + '\n';
    return text + (after ? `\n${after}` : '');
  };
  return {
    files,
    sections,
    styles,
    fonts,
    language,
    pictures,
    outline: outlineOf(folio, files),
    shows: (item) => shown.has(item) || playedItems.has(item),
    pages: layout.pageMarks
      ? [...places.pages].map(([page, p]) => ({ printed: fields.printed(page), href: `${p.file.name}#${p.id}` }))
      : [],
    body,
  };
}

function filesOf(sections: readonly FlowSection[], layout: FlowLayout, title: string): FlowFile[] {
  if (!layout.split) return [{ name: layout.fileOf(1), sections: [...sections], title }];
  return sections.map((s, i) => ({ name: layout.fileOf(i + 1), sections: [s], title: sectionTitle(s) || title }));
}

/** Every paragraph of a flow, those of captions, cells, boxes and notes included. */
export function usedParagraphs(sections: readonly FlowSection[]): Set<string> {
  const used = new Set<string>();
  const block = (story: Story, id: string): void => {
    const found = story.blocks[id];
    if (!found || used.has(id)) return;
    if (found.kind === 'table') return void Object.values(found.cells).forEach((cell) => cell.order.forEach((p) => block(story, p)));
    used.add(id);
    for (const node of found.content) if (node.type === 'note') node.order.forEach((p) => block(story, p));
  };
  const visit = (b: FlowBlock): void => {
    if (b.kind === 'paragraph') block(b.story, b.paragraph.id);
    else if (b.kind === 'table') block(b.story, b.table.id);
    else if (b.kind === 'figure') b.captions.forEach(visit);
    else if (b.kind === 'box') b.blocks.forEach(visit);
  };
  for (const s of sections) s.blocks.forEach(visit);
  return used;
}

interface Places {
  paragraphs: Map<string, { file: FlowFile; id: string; page?: string }>;
  pages: Map<string, { file: FlowFile; id: string }>;
}

/** The file in which each paragraph and each page begins. */
function placesIn(files: readonly FlowFile[]): Places {
  const out: Places = { paragraphs: new Map(), pages: new Map() };
  for (const file of files) {
    const paragraph = (p: FlowParagraph): void => {
      out.paragraphs.set(p.paragraph.id, { file, id: anchor.paragraph(p.paragraph.id), page: p.page });
      for (const { page } of p.breaks) out.pages.set(page, { file, id: anchor.page(page) });
    };
    const visit = (b: FlowBlock): void => {
      if (b.kind === 'pageMark') out.pages.set(b.page, { file, id: anchor.page(b.page) });
      else if (b.kind === 'paragraph') paragraph(b);
      else if (b.kind === 'figure') b.captions.forEach(paragraph);
      else if (b.kind === 'box') b.blocks.forEach(visit);
    };
    for (const s of file.sections) s.blocks.forEach(visit);
  }
  return out;
}

function outlineOf(folio: Folio, files: readonly FlowFile[]): OutlineEntry[] {
  return files.flatMap((file) =>
    file.sections.flatMap((s) =>
      s.blocks.flatMap((b) => {
        const level = b.kind === 'paragraph' ? headingLevel(b.role.element) : 0;
        if (b.kind !== 'paragraph' || !level) return [];
        const text = outlineText(folio.head, b.paragraph.id, readText(b.paragraph).trim());
        return text === null ? [] : [{ level, text, href: `${file.name}#${anchor.paragraph(b.paragraph.id)}` }];
      }),
    ),
  );
}

/** Pictures, films and sounds of a flow, each once, and how each item shows its own. */
async function picturesOf(job: WriteJob<FlowSettings>, sections: readonly FlowSection[], measure: number) {
  const { folio } = job;
  const items = figuresIn(job, sections);
  const shown = new Map<string, FlowPicture>();
  const pictures = new Map<string, PreparedFlow['pictures'][number]>();
  for await (const { item, image, width } of drawnFigures(job, items)) {
    const stem = (item.kind !== 'group' && pictureOf(item)) || item.id;
    const path = `pictures/${stem}-${shortHash(image.bytes)}.${image.mediaType === 'image/svg+xml' ? 'svg' : PICTURE_EXTENSIONS[image.mediaType]}`;
    pictures.set(path, { path, mediaType: image.mediaType, bytes: image.bytes });
    shown.set(item.id, { source: path, width: image.width, height: image.height, share: Math.min(1, Math.max(0.1, width / measure)) });
  }
  const played = new Map<string, string>();
  const playedItems = new Set<string>();
  for (const { item } of items) {
    if (item.kind !== 'media' || !playedFile(folio, item)) continue;
    playedItems.add(item.id);
    for (const media of [item.media, item.captions]) {
      const file = media ? folio.head.media[media] : undefined;
      if (!media || !file || played.has(media)) continue;
      const bytes = await job.media(media);
      const path = `media/${media}-${shortHash(bytes)}${/\.[A-Za-z0-9]+$/.exec(file.file)?.[0] ?? ''}`;
      pictures.set(path, { path, mediaType: file.mediaType, bytes });
      played.set(media, path);
    }
  }
  return { pictures: [...pictures.values()], shown, played, playedItems };
}
