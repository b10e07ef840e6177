import { fieldsAsSet } from '../../compose/fields.ts';
import { isAddressOfWeb } from '../../folio/address.ts';
import type { Item } from '../../folio/items.ts';
import type { Paragraph } from '../../folio/story.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';
import { boxChains } from '../../structure/textBoxes.ts';
import { flowOf } from '../../structure/flow.ts';
import type { FlowSection } from '../../structure/flow.ts';
import { FlowFonts } from '../reflow/flowFonts.ts';
import { flowFields } from '../reflow/flowFields.ts';
import { drawnFigures, figuresIn } from '../reflow/flowFigures.ts';
import { usedParagraphs } from '../reflow/prepareFlow.ts';
import { paragraphsIn } from '../office/laidPages.ts';
import { leadingOfParagraphs } from '../office/leading.ts';
import { OFFICE, OfficePackage } from '../ooxml/officePackage.ts';
import type { Part } from '../ooxml/officePackage.ts';
import { contentsOf } from '../office/contents.ts';
import { writeProperties } from '../ooxml/documentProperties.ts';
import { replacementsOf } from '../office/officeSettings.ts';
import { PictureParts } from '../office/pictureParts.ts';
import { DrawnLooks } from '../office/drawnLooks.ts';
import { DRAWINGML } from '../office/placedFormat.ts';
import { promptsIn } from '../office/promptedJob.ts';
import { PlacedPictures } from '../office/placedPictures.ts';
import type { Xml } from '../assets/xml.ts';
import { el, xmlFile } from '../assets/xml.ts';
import { outputFile, streamedFile } from '../assets/outputFile.ts';
import { scopeOf } from '../scope.ts';
import type { Scope } from '../scope.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { Bookmarks } from './bookmarks.ts';
import { contentsField, contentsStyles } from './contentsField.ts';
import { documentSettings } from './documentSettings.ts';
import { field } from './inlineContent.ts';
import { LaidOut } from './laidOut.ts';
import { LaidPictures } from './laidPictures.ts';
import { CONTENT, NAMESPACES } from '../ooxml/wordNamespaces.ts';
import { Numbering } from './numbering.ts';
import { measureOf, pageSetup } from '../office/pageSetup.ts';
import { writeParagraphIds } from './paragraphIds.ts';
import { RunningText } from './runningText.ts';
import type { DocxSettings } from './settings.ts';
import type { WordContext } from './wordContext.ts';
import { writeFonts } from './wordFonts.ts';
import { WordNotes } from './wordNotes.ts';
import { WordPictures } from './wordPictures.ts';
import type { MadePicture } from './wordPictures.ts';
import { WordStyles } from './wordStyles.ts';

/** Boxes that a text can run through: one and thirty-one that go on (common practice of programs). */
export const MOST_BOXES = 32;

/** The files of a result. */
export const fileName = ({ template }: Pick<DocxSettings, 'template'>): string => (template ? 'document.dotx' : 'document.docx');
const MEDIA_TYPE = 'application/vnd.openxmlformats-officedocument.wordprocessingml';

/** Writes a text document (WordprocessingML, ISO/IEC 29500-1) : the whole text in the order in which it is read, or page by page as laid out. */
export async function* writeDocx(job: WriteJob<DocxSettings>): AsyncGenerator<OutputFile> {
  const { folio, composition, settings, fonts } = job;
  const laid = settings.way === 'laid';
  const scope = scopeOf(folio, composition, settings, laid);
  const sections = flowOf(folio, composition, scope);
  const pack = new OfficePackage();
  const document = pack.add('word/document.xml', settings.template ? CONTENT.template : CONTENT.document);
  pack.relate(`${OFFICE}/officeDocument`, document);
  const replacements = replacementsOf(settings);
  const look = { folio, fonts, replacements };
  const numbering = new Numbering(look);
  const styles = new WordStyles(look, numbering, settings);
  const setup = pageSetup(scope.pages, composition);
  const flow = flowFields(folio, sections);
  const leading = leadingOfParagraphs(folio, composition, settings.leading);
  const notes = new WordNotes();
  let drawings = 0;
  const nextId = (): number => ++drawings;
  const place = settings.pictures === 'beside' ? 'beside' : 'inside';
  const files = new PictureParts(pack, 'word/media', place);
  const pictures = new WordPictures(files, laid ? new Map() : await madePictures(job, sections), nextId);
  const chains = laid ? boxChains(folio, composition, scope, { most: MOST_BOXES, linked: settings.linked === 'linked' }) : [];
  const used = laid ? paragraphsIn(chains) : usedParagraphs(sections);
  const bookmarks = new Bookmarks();
  const c: WordContext = {
    folio,
    styles,
    numbering,
    bookmarks,
    pictures,
    part: document,
    measure: measureOf(setup),
    exactInk: laid,
    liveFields: settings.fields === 'live',
    // On pages fields show what they show in the layout.
    fields: laid ? { ...flow.sources, ...fieldsAsSet(folio, composition) } : flow.sources,
    has: (kind, id) => (kind === 'p' ? used.has(id) : scope.hasPage(id)),
    note: (story, node) => notes.take(story, node),
    pitch: (paragraph) => ({ points: leading(paragraph).points, rule: holdsItems(paragraph) ? 'atLeast' : 'exact' }),
    linkOf: (item, page, part) => {
      const address = addressOf(item, page, scope, bookmarks);
      return address === null ? undefined : part.relateOutside(`${OFFICE}/hyperlink`, address);
    },
    tables: settings.tables,
    prompts: promptsIn(job),
    initials: !laid && settings.initials === 'framed',
  };
  const entries = settings.contents && !laid ? contentsOf(folio, sections, settings.depth, (id) => flow.sources.pageOf(id)) : [];
  let body: Xml;
  if (laid) {
    const laidPictures = new LaidPictures(
      await PlacedPictures.of(job, scope, DRAWINGML),
      files,
      await DrawnLooks.of(job, scope, DRAWINGML),
    );
    body = new LaidOut(c, {
      folio,
      composition,
      scope,
      chains,
      pictures: laidPictures,
      pack,
      setup,
      masters: settings.masters,
      nextId,
    }).body();
  } else {
    const frames = new Map(scope.pages.flatMap((p) => Object.entries(p.spread.items)));
    const footer = settings.pageNumbers ? footerXml(pack, document) : null;
    const running = new RunningText(c, setup, { columns: settings.columns === 'layout', footer, frameOf: (id) => frames.get(id) });
    body = running.body(sections, entries.length ? contentsField(entries, settings.depth, c) : null);
  }
  document.content = xmlFile(el('w:document', NAMESPACES, body));
  const hasNotes = notes.write(pack, document, c);
  const more = entries.length ? contentsStyles(settings.depth, c.measure) : [];
  document.relate(`${OFFICE}/styles`, pack.add('word/styles.xml', CONTENT.styles, styles.file(more)));
  if (!numbering.isEmpty) document.relate(`${OFFICE}/numbering`, pack.add('word/numbering.xml', CONTENT.numbering, numbering.file()));
  const faces = new FlowFonts(folio, fonts, composition, used).characters.keys();
  const embed = settings.fonts === 'embed';
  writeFonts(pack, document, faces, embed, (face) => replacements.get(face.familyOfFour.family.toLowerCase()) ?? face.familyOfFour.family);
  const language = settings.language || folio.head.metadata.language;
  const about = xmlFile(documentSettings({ fonts: embed, language, notes: hasNotes }));
  document.relate(`${OFFICE}/settings`, pack.add('word/settings.xml', CONTENT.settings, about));
  // What is filled in elsewhere does not come back.
  if (!c.prompts) writeParagraphIds(pack, document, folio, c.bookmarks);
  writeProperties(job, pack);
  yield streamedFile(fileName(settings), `${MEDIA_TYPE}.${settings.template ? 'template' : 'document'}`, pack.bytes());
  for (const [path, image] of files.beside) yield outputFile(path, image.mediaType, image.bytes);
}

/** Where a press on an item leads: out of the document, or to a page of it; null where it leads nowhere. */
function addressOf(item: Item, page: string, scope: Scope, bookmarks: Bookmarks): string | null {
  const pressed = linkCueOf(item);
  const target = pressed && scope.targets.of(pressed.destination, page);
  if (target) return 'href' in target ? target.href : `#${bookmarks.name('pg', target.page)}`;
  return item.kind === 'embed' && item.source.from === 'address' && isAddressOfWeb(item.source.href) ? item.source.href.trim() : null;
}

const holdsItems = (paragraph: Paragraph): boolean => paragraph.content.some((n) => n.type === 'anchor' && n.place === 'inline');

/** Every figure as a picture, those made of lines in pixels as well. */
async function madePictures(job: WriteJob<DocxSettings>, sections: readonly FlowSection[]): Promise<Map<string, MadePicture>> {
  const made = new Map<string, MadePicture>();
  if (job.settings.pictures === 'none') return made;
  for await (const { item, image, width } of drawnFigures(job, figuresIn(job, sections))) {
    const drawn = image.mediaType === 'image/svg+xml' ? await job.pictures.drawSvg(new TextDecoder().decode(image.bytes), 'picture') : null;
    made.set(item.id, { image, width, fallback: drawn && { ...image, mediaType: 'image/png', bytes: drawn } });
  }
  return made;
}

/** The foot of every page: its number. */
function footerXml(pack: OfficePackage, document: Part): Xml {
  const line = el('w:p', {}, el('w:pPr', {}, el('w:jc', { 'w:val': 'center' })), field('PAGE', null, '1'));
  const part = pack.add('word/footer1.xml', CONTENT.footer, xmlFile(el('w:ftr', NAMESPACES, line)));
  return el('w:footerReference', { 'w:type': 'default', 'r:id': document.relate(`${OFFICE}/footer`, part) });
}
