import type { Folio } from '../../folio/folio.ts';
import type { Paragraph, Story } from '../../folio/story.ts';
import { contentLength } from '../../folio/text.ts';
import { pageOfItem, storyOfFrame } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { signsOfPages } from '../../ports/origin.ts';
import type { Origin } from '../../ports/origin.ts';
import { elementAt, originalParts } from '../../read/odf/originalParts.ts';
import type { OriginalParts } from '../../read/odf/originalParts.ts';
import { saidWords } from '../../read/odf/saidWords.ts';
import { childOf, childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';
import type { Xml } from '../opendocument/element.ts';
import { Graft } from '../opendocument/graft.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { OdpSettings } from './settings.ts';
import type { SlideSigns } from './slideSigns.ts';

/** Whether a recipe asks for nothing that a page as it came in would not have. */
const asTheyCame = (job: Pick<WriteJob<OdpSettings>, 'settings'>): boolean => {
  const {
    originals,
    pictures,
    media,
    notes,
    transitions,
    fields,
    spreads,
    crops,
    effects,
    blends,
    whiteGround,
    template,
    words,
    replacements,
  } = job.settings;
  const isWhole = pictures === 'inside' && media === 'inside' && notes && transitions && fields === 'live';
  const isPlain = crops === 'keep' && effects === 'native' && blends === 'plain' && whiteGround === 'keep';
  if ((template && words === 'prompts') || replacements.trim()) return false;
  return originals === 'own' && isWhole && isPlain && spreads === 'apart';
};

/** Pages of a document that came in as OpenDocument and that nobody has changed since, by their ids. */
function untouchedPages(job: WriteJob<OdpSettings>, scope: Pick<Scope, 'pages' | 'shown'>): Set<string> {
  const { folio, origin } = job;
  if (!origin || origin.format !== 'odf' || !asTheyCame(job)) return new Set();
  const sign = signsOfPages(folio, origin.called);
  return new Set(scope.pages.flatMap((place) => (isUntouched(origin, place, scope, sign) ? [place.page.id] : [])));
}

/** Leaves out pages of which a text goes on on others. */
function withWholeTexts({ spreads, stories }: Folio, pages: Set<string>): void {
  const spreadOf = new Map(Object.values(spreads).flatMap((s) => Object.keys(s.items).map((id) => [id, s] as const)));
  const runs = Object.values(stories).map(
    ({ frames }) =>
      new Set(
        frames.flatMap(({ item }) => {
          const spread = spreadOf.get(item);
          return spread ? [pageOfItem(spread, spread.items[item]!).id] : [];
        }),
      ),
  );
  for (let before = -1; before !== pages.size;) {
    before = pages.size;
    for (const run of runs) if (run.size > 1 && [...run].some((id) => !pages.has(id))) for (const id of run) pages.delete(id);
  }
}

const opened = new WeakMap<Origin, Promise<OriginalParts | null>>();
const partsOf = (origin: Origin): Promise<OriginalParts | null> => {
  let parts = opened.get(origin);
  if (!parts) opened.set(origin, (parts = originalParts(origin)));
  return parts;
};

function isUntouched(
  origin: Origin,
  { page, spread }: PagePlace,
  { shown }: Pick<Scope, 'shown'>,
  sign: (page: string) => string,
): boolean {
  const before = origin.pages[page.id];
  if (before === undefined || origin.elements[page.id] === undefined) return false;
  const here = Object.values(spread.items).filter((i) => pageOfItem(spread, i).id === page.id);
  return here.every((i) => i.kind === 'group' || shown(i)) && sign(page.id) === before;
}

/** Such pages, ready to stand in another presentation. */
export class OriginalPages {
  private constructor(
    private readonly folio: Folio,
    private readonly origin: Origin,
    readonly graft: Graft,
    private readonly elements: ReadonlyMap<string, XmlElement>,
    private readonly content: XmlElement,
    /** What takes down which texts stand where. */
    private readonly signs: SlideSigns | null,
  ) {}

  /** Null where there are none. */
  static async of(
    job: WriteJob<OdpSettings>,
    scope: Pick<Scope, 'pages' | 'shown'>,
    signs: SlideSigns | null,
  ): Promise<OriginalPages | null> {
    const untouched = untouchedPages(job, scope);
    const parts = untouched.size && job.origin ? await partsOf(job.origin) : null;
    if (!parts) return null;
    const graft = new Graft(parts);
    const elementOf = (id: string): XmlElement | undefined => {
      const [part, path = ''] = job.origin!.elements[id]!.split('#');
      const element = part === 'content.xml' ? elementAt(parts.content, path) : undefined;
      return element?.name === 'draw:page' && graft.takesWhole(element) ? element : undefined;
    };
    for (const id of [...untouched]) if (!elementOf(id)) untouched.delete(id);
    withWholeTexts(job.folio, untouched);
    const elements = new Map([...untouched].map((id) => [id, elementOf(id)!]));
    return elements.size ? new OriginalPages(job.folio, job.origin!, graft, elements, parts.content, signs) : null;
  }

  /** Where each of them is in the original, by indexes of elements from the root down. */
  get paths(): Map<string, string> {
    return new Map([...this.elements].map(([id, element]) => [id, element.path]));
  }

  has(page: string): boolean {
    return this.elements.has(page);
  }

  /** What a page is called in the original, where no other is called so: links lead there by it. */
  nameOf(page: string): string | undefined {
    const name = this.elementOf(page)?.attributes['draw:name'];
    const body =
      childOf(childOf(this.content, 'office:body'), 'office:presentation') ??
      childOf(childOf(this.content, 'office:body'), 'office:drawing');
    const same = childrenOf(body, 'draw:page').filter((p) => p.attributes['draw:name'] === name);
    return name !== undefined && same.length === 1 ? name : undefined;
  }

  /** A page as it came in, under the name that it has here. */
  page(id: string, name: string): Xml {
    const element = this.elements.get(id)!;
    if (this.signs) this.tell(id, this.signs);
    return this.graft.xml({ ...element, attributes: { ...element.attributes, 'draw:name': name } }, 'content')!;
  }

  /** Takes down which texts stand in it, so that what colleagues change is found again. */
  private tell(id: string, signs: SlideSigns): void {
    const storyOf = storyOfFrame(this.folio);
    const spread = Object.values(this.folio.spreads).find((s) => s.pages.some((p) => p.id === id));
    for (const item of Object.values(spread?.items ?? {})) {
      const story = this.folio.stories[storyOf.get(item.id) ?? ''];
      if (story && pageOfItem(spread!, item).id === id) this.take(this.elementOf(item.id)?.attributes['draw:name'] ?? 'Text', story, signs);
    }
    const notes = this.folio.stories[spread?.pages.find((p) => p.id === id)?.notes ?? ''];
    if (notes) this.take('notes', notes, signs);
  }

  private take(name: string, story: Story, signs: SlideSigns): void {
    signs.box(name, []);
    for (const p of paragraphsIn(story)) {
      const element = this.elementOf(p.id);
      if (element)
        signs.told(
          p.id,
          contentLength(p.content),
          saidWords(element, (e) => e.children),
        );
    }
  }

  private elementOf(id: string): XmlElement | undefined {
    const [part, path] = this.origin.elements[id]?.split('#') ?? [];
    return part === 'content.xml' && path !== undefined ? elementAt(this.content, path) : undefined;
  }
}

/** The paragraphs of a text in the order in which a file has them. */
const paragraphsIn = (story: Story): Paragraph[] => {
  const visit = (id: string): Paragraph[] => {
    const block = story.blocks[id];
    if (!block) return [];
    if (block.kind === 'paragraph') return [block];
    const cells = Object.values(block.cells).sort((a, b) => a.row - b.row || a.column - b.column);
    return cells.flatMap((c) => c.order.flatMap(visit));
  };
  return story.order.flatMap(visit);
};
