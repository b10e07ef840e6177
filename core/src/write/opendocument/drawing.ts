import type { Folio } from '../../folio/folio.ts';
import { translation } from '../../folio/geometry.ts';
import { storyOfFrame } from '../../folio/traverse.ts';
import { nameOfPages, pagesAt } from '../../folio/joinedSpreads.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { AutomaticStyles } from './automaticStyles.ts';
import { el, pt, text } from './element.ts';
import type { Xml } from './element.ts';
import { Looks } from './graphicLooks.ts';
import { NotHeld } from './notHeld.ts';
import type { OdfSources } from './odfSources.ts';
import { shapesOf } from './shapes.ts';
import { Texts } from './texts.ts';
import { TextStyles } from './textStyles.ts';
import { transitionOf } from './transition.ts';

export type Kind = 'drawing' | 'presentation';
const URN = 'urn:oasis:names:tc:opendocument:xmlns';
export const NAMESPACES = {
  'xmlns:office': `${URN}:office:1.0`,
  'xmlns:style': `${URN}:style:1.0`,
  'xmlns:text': `${URN}:text:1.0`,
  'xmlns:table': `${URN}:table:1.0`,
  'xmlns:draw': `${URN}:drawing:1.0`,
  'xmlns:presentation': `${URN}:presentation:1.0`,
  'xmlns:fo': `${URN}:xsl-fo-compatible:1.0`,
  'xmlns:svg': `${URN}:svg-compatible:1.0`,
  'xmlns:smil': `${URN}:smil-compatible:1.0`,
  'xmlns:form': `${URN}:form:1.0`,
  'xmlns:script': `${URN}:script:1.0`,
  'xmlns:meta': `${URN}:meta:1.0`,
  'xmlns:xlink': 'http://www.w3.org/1999/xlink',
  'xmlns:dc': 'http://purl.org/dc/elements/1.1/',
  'xmlns:anim': `${URN}:animation:1.0`,
  'xmlns:dr3d': `${URN}:dr3d:1.0`,
  'xmlns:number': `${URN}:datastyle:1.0`,
  'xmlns:config': `${URN}:config:1.0`,
  'xmlns:math': 'http://www.w3.org/1998/Math/MathML',
  'xmlns:dom': 'http://www.w3.org/2001/xml-events',
  'xmlns:loext': 'urn:org:documentfoundation:names:experimental:office:xmlns:loext:1.0',
  'office:version': '1.3',
};

export interface DrawingXml {
  content: Xml;
  styles: Xml;
  meta: Xml;
  notHeld: string[];
}

/** A Folio as the parts of an OpenDocument drawing or presentation (OASIS OpenDocument 1.3). Pages stand one by one. */
export function drawingOf(folio: Folio, kind: Kind, sources: OdfSources): DrawingXml {
  const notHeld = new NotHeld();
  const { head } = folio;
  const { pages } = sources;
  const { original } = sources;
  const plainName = (p: PagePlace, i: number): string => (p.joins ? nameOfPages(p.number, p.joins.length) : `Page ${i + 1}`);
  const names = new Map<string, string>();
  for (const [i, p] of pages.entries()) {
    const wanted = original?.nameOf(p.page.id) ?? plainName(p, i);
    const isFree = ![...names.values()].includes(wanted);
    names.set(p.page.id, isFree ? wanted : `${wanted} (${i + 1})`);
  }
  const pageName = (page: string): string => names.get(page) ?? '';
  const looks = new Looks(head, notHeld);
  const textStyles = new TextStyles(head, notHeld, sources);
  const storyOf = storyOfFrame(folio);
  const within = (automatic: AutomaticStyles, sources: OdfSources) => {
    const texts = new Texts(folio, textStyles, automatic, notHeld, pageName, sources);
    return { automatic, texts, shapes: shapesOf(folio, { texts, looks, automatic, notHeld, pageName, storyOf, sources }) };
  };
  const content = within(new AutomaticStyles(), sources);
  // What repeats is not found again by the slide on which it stands.
  const { takes, ...onMaster } = sources;
  const onMasters = within(new AutomaticStyles(), onMaster);
  const masters = new Map<string, { name: string; node: Xml }>();
  const layouts: Xml[] = [];

  /** A master page for a size: the format ties sizes to masters. */
  const masterFor = (place: PagePlace): string => {
    const { width, height } = place.page.box;
    const { key: same, name: title, items, order, origin } = sources.master(place);
    const key = `${same} ${Math.round(width * 10)} ${Math.round(height * 10)}`;
    const known = masters.get(key);
    if (known) return known.name;
    const name = `Master${masters.size + 1}`;
    const layout = `Layout${masters.size + 1}`;
    layouts.push(
      el('style:page-layout', { 'style:name': layout }, [
        el('style:page-layout-properties', {
          'fo:page-width': pt(width),
          'fo:page-height': pt(height),
          'fo:margin': '0pt',
          'style:print-orientation': width > height ? 'landscape' : 'portrait',
        }),
      ]),
    );
    onMasters.texts.page = place.page.id;
    const inside = order.flatMap((item) => onMasters.shapes.item(items, item, origin));
    masters.set(key, {
      name,
      node: el(
        'style:master-page',
        {
          'style:name': name,
          'style:display-name': title,
          'style:page-layout-name': layout,
          'draw:style-name': onMasters.automatic.page({ 'draw:fill': 'none' }),
        },
        inside,
      ),
    });
    return name;
  };

  const pageNode = (place: PagePlace): Xml => {
    const { page, spread } = place;
    content.shapes.controls = [];
    const name = pageName(page.id);
    takes?.slide(name);
    if (original?.has(page.id)) return original.page(page.id, name);
    content.texts.page = page.id;
    const origin = translation(-page.box.x, -page.box.y);
    const shapes = sources.own(place).flatMap((item) => content.shapes.item(spread.items, item, origin));
    const isGradient = page.background.type === 'gradient';
    const whole = { x: 0, y: 0, width: page.box.width, height: page.box.height };
    const back = page.background.type === 'none' || (isGradient && !sources.pieces) ? {} : looks.fill(page.background, 1, whole);
    if (isGradient && !sources.pieces) notHeld.add('Gradients behind pages');
    if (page.bleed) notHeld.add('Bleed');
    if (Object.keys(page.cues).length) notHeld.add('Cues of pages');
    const notes = sources.notes ? pagesAt(place).flatMap((p) => (p.notes === undefined ? [] : (folio.stories[p.notes] ?? []))) : [];
    const motion = kind === 'presentation' && sources.transitions ? transitionOf(page) : {};
    if (kind === 'drawing' && (page.transition || page.advanceAfter !== undefined)) notHeld.add('Page transitions (drawings have none)');
    const controls = content.shapes.controls.map((c) => c.node);
    if (notes.length) takes?.box('notes', []);
    const notesXml = notes.flatMap((story) => content.texts.blocks(story, story.order));
    return el(
      'draw:page',
      {
        'draw:name': name,
        'xml:id': page.id,
        'draw:id': page.id,
        'draw:master-page-name': masterFor(place),
        'draw:style-name': content.automatic.page({
          ...back,
          ...motion,
          'presentation:background-visible': 'true',
          'presentation:background-objects-visible': String(sources.master(place).shows),
          'presentation:display-page-number': 'true',
          'presentation:display-footer': 'true',
        }),
      },
      [
        controls.length > 0 && el('office:forms', {}, [el('form:form', { 'form:name': 'Form' }, controls)]),
        ...shapes,
        notes.length > 0 &&
          el('presentation:notes', {}, [
            el('draw:frame', { 'presentation:class': 'notes', 'svg:width': '400pt', 'svg:height': '300pt' }, [
              el('draw:text-box', {}, notesXml),
            ]),
          ]),
      ],
    );
  };

  if (pages.length !== head.spreadOrder.length) notHeld.add('Spreads (pages are written one by one)');
  for (const spread of Object.values(folio.spreads))
    if (Object.keys(spread.masterOverrides).length) notHeld.add('Own versions of master items');
  if (head.baselineGrid) notHeld.add('Baseline grid');
  if (Object.keys(head.swatches).length) notHeld.add('Swatches and inks (written as RGB colours)');
  if (Object.keys(folio.editions).length) notHeld.add('Editions in other languages');
  if (Object.keys(folio.recipes).length) notHeld.add('Recipes');
  if (head.structure.strands.length || Object.keys(head.structure.pins).length) notHeld.add('Reading path and pins');
  if (head.opening) notHeld.add('How the document opens');
  const pageNodes = pages.map((p) => pageNode(p));
  const named = textStyles.named();
  const defaults = [textStyles.defaults('graphic', sources.language), textStyles.defaults('paragraph', sources.language)];
  const layers = head.layerOrder.map((id) => {
    const layer = head.layers[id]!;
    const display = layer.visible ? (layer.printing ? 'always' : 'screen') : layer.printing ? 'printer' : 'none';
    return el('draw:layer', { 'draw:name': layer.name, 'draw:display': display, 'draw:protected': layer.locked ? 'true' : undefined });
  });
  const known = new Set(head.layerOrder.map((id) => head.layers[id]!.name));
  for (const name of original?.graft.layers ?? []) if (!known.has(name)) layers.push(el('draw:layer', { 'draw:name': name }));
  const fonts = original?.graft.fonts ?? [];
  return {
    content: el('office:document-content', NAMESPACES, [
      fonts.length > 0 && el('office:font-face-decls', {}, fonts),
      el('office:automatic-styles', {}, [...content.automatic.nodes, ...(original?.graft.singleOf('content') ?? [])]),
      el('office:body', {}, [el(`office:${kind}`, {}, [...(original?.graft.declarations ?? []), ...pageNodes])]),
    ]),
    styles: el('office:document-styles', NAMESPACES, [
      fonts.length > 0 && el('office:font-face-decls', {}, fonts),
      el('office:styles', {}, [...looks.definitions, defaults, ...named, ...(original?.graft.named ?? [])]),
      el('office:automatic-styles', {}, [...layouts, ...onMasters.automatic.nodes, ...(original?.graft.singleOf('styles') ?? [])]),
      el('office:master-styles', {}, [
        el('draw:layer-set', {}, layers),
        ...[...masters.values()].map((m) => m.node),
        ...(original?.graft.masters ?? []),
      ]),
    ]),
    meta: metaOf(folio, sources),
    notHeld: notHeld.lines(),
  };
}

/** What a package says of its document. */
export function metaOf({ head: { metadata } }: Folio, { title, language }: Pick<OdfSources, 'title' | 'language'>): Xml {
  return el('office:document-meta', NAMESPACES, [
    el('office:meta', {}, [
      el('dc:title', {}, [text(title)]),
      el('dc:language', {}, [text(language)]),
      ...metadata.creators.map((c) => el('dc:creator', {}, [text(c)])),
      metadata.description !== undefined && el('dc:description', {}, [text(metadata.description)]),
      ...metadata.subjects.map((s) => el('meta:keyword', {}, [text(s)])),
    ]),
  ]);
}
