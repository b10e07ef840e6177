import { pagesAt } from '../../folio/joinedSpreads.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { rectangle } from '../ooxml/drawing/geometry.ts';
import { transformXml } from '../ooxml/drawing/placement.ts';
import { OFFICE } from '../ooxml/officePackage.ts';
import type { OfficePackage, Part } from '../ooxml/officePackage.ts';
import type { Xml } from '../assets/xml.ts';
import { all, el, xmlFile } from '../assets/xml.ts';
import { CONTENT, NAMESPACES } from './namespaces.ts';
import { about, colourMap, shapeTree } from './shapes.ts';
import type { SlideContext } from './slideContext.ts';
import { paragraphsXml } from './slideText.ts';

/** The sheet on which notes are printed: A4 upright, in points. */
export const NOTES = { width: 595, height: 842 };

const place = (id: number, name: string, type: 'sldImg' | 'body', body: Xml | null, size: boolean): Xml => {
  const at = type === 'sldImg' ? { y: 60, height: 300 } : { y: 400, height: 380 };
  return el(
    'p:sp',
    {},
    el(
      'p:nvSpPr',
      {},
      about({ id, name, alt: '', decorative: false, press: null }),
      el(
        'p:cNvSpPr',
        {},
        el('a:spLocks', { noGrp: 1, noRot: type === 'sldImg' ? 1 : undefined, noChangeAspect: type === 'sldImg' ? 1 : undefined }),
      ),
      el('p:nvPr', {}, el('p:ph', { type, idx: type === 'body' ? 1 : undefined })),
    ),
    el('p:spPr', {}, size && [transformXml('a:xfrm', { x: 60, width: 475, rotation: 0, flipV: false, ...at }), rectangle()]),
    body,
  );
};
const words = (content: Xml): Xml => el('p:txBody', {}, el('a:bodyPr'), el('a:lstStyle'), content);

/** Notes to slides, and the master of their sheets (ISO/IEC 29500-1, 19.3.1.27 and 19.3.1.26). */
export class NotesSlides {
  private master: Part | undefined;
  private count = 0;

  constructor(
    private readonly pack: OfficePackage,
    private readonly presentation: Part,
    private readonly theme: () => Part,
  ) {}

  /** The relationship by which the presentation names the master; null where there are no notes. */
  get relation(): string | null {
    return this.master ? this.presentation.relate(`${OFFICE}/notesMaster`, this.master) : null;
  }

  /** Writes the notes of its pages, where they have such. */
  write(at: PagePlace, slide: Part, context: SlideContext): void {
    const stories = pagesAt(at).flatMap(({ notes, id }) => {
      const story = notes === undefined ? undefined : context.folio.stories[notes];
      return story ? [{ story, page: id }] : [];
    });
    if (!stories.length) return;
    this.master ??= this.writeMaster();
    const part = this.pack.add(`ppt/notesSlides/notesSlide${++this.count}.xml`, CONTENT.notes);
    const content = all(
      stories.map(({ story, page }) => {
        const blocks = story.order.flatMap((id) => (story.blocks[id] ? [{ block: story.blocks[id], begins: true, ends: true }] : []));
        return paragraphsXml(story, blocks, { ...context, part, page });
      }),
    );
    part.content = xmlFile(
      el(
        'p:notes',
        NAMESPACES,
        el('p:cSld', {}, shapeTree([place(2, 'Slide', 'sldImg', null, false), place(3, 'Notes', 'body', words(content), false)])),
        el('p:clrMapOvr', {}, el('a:masterClrMapping')),
      ),
    );
    part.relate(`${OFFICE}/notesMaster`, this.master);
    part.relate(`${OFFICE}/slide`, slide);
    slide.relate(`${OFFICE}/notesSlide`, part);
  }

  private writeMaster(): Part {
    const part = this.pack.add('ppt/notesMasters/notesMaster1.xml', CONTENT.notesMaster);
    const prompt = el('a:p', {}, el('a:r', {}, el('a:t', {}, 'Notes' as Xml)));
    part.content = xmlFile(
      el(
        'p:notesMaster',
        NAMESPACES,
        el(
          'p:cSld',
          {},
          el('p:bg', {}, el('p:bgPr', {}, el('a:solidFill', {}, el('a:schemeClr', { val: 'bg1' })), el('a:effectLst'))),
          shapeTree([place(2, 'Slide', 'sldImg', null, true), place(3, 'Notes', 'body', words(prompt), true)]),
        ),
        colourMap(),
      ),
    );
    part.relate(`${OFFICE}/theme`, this.theme());
    return part;
  }
}
