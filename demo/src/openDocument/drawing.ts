import { itemBounds, masterChain, overlap, pageOfItem, pagesOf, solidHex, storyOfFrame, translation } from '@elastic-folio/core';
import type { Folio, Item, Page, Spread } from '@elastic-folio/core';
import { AutomaticStyles } from './automaticStyles.ts';
import { el, pt, text } from './element.ts';
import type { Node } from './element.ts';
import { Looks } from './looks.ts';
import { NotHeld } from './notHeld.ts';
import { Shapes } from './shapes.ts';
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
  'office:version': '1.3',
};

export interface DrawingXml {
  content: Node;
  styles: Node;
  meta: Node;
  notHeld: string[];
}

/** A Folio as the parts of an OpenDocument drawing or presentation (OASIS OpenDocument 1.3). Pages stand one by one. */
export function drawingOf(folio: Folio, kind: Kind): DrawingXml {
  const notHeld = new NotHeld();
  const { head } = folio;
  const pages = pagesOf(folio);
  const names = new Map(pages.map((p, i) => [p.page.id, `Page ${i + 1}`]));
  const pageName = (page: string): string => names.get(page) ?? '';
  const looks = new Looks(head, notHeld);
  const textStyles = new TextStyles(head, notHeld);
  const storyOf = storyOfFrame(folio);
  const within = (automatic: AutomaticStyles) => {
    const texts = new Texts(folio, textStyles, automatic, notHeld, pageName);
    return { automatic, texts, shapes: new Shapes(folio, texts, looks, automatic, notHeld, pageName, storyOf) };
  };
  const content = within(new AutomaticStyles());
  const onMasters = within(new AutomaticStyles());
  const masters = new Map<string, { name: string; node: Node }>();
  const layouts: Node[] = [];

  /** A master page for a size: the format ties sizes to masters. */
  const masterFor = (page: Page): string => {
    const { width, height } = page.box;
    const key = `${page.showMaster ? (page.master ?? '') : ''} ${Math.round(width * 10)} ${Math.round(height * 10)}`;
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
    const chain = page.showMaster ? masterChain(folio, page.master) : [];
    const items = chain.flatMap((m) =>
      m.order.flatMap((id) => (m.items[id] ? onMasters.shapes.item(m.items, m.items[id], translation(0, 0)) : [])),
    );
    masters.set(key, {
      name,
      node: el(
        'style:master-page',
        {
          'style:name': name,
          'style:display-name': chain.at(-1)?.name,
          'style:page-layout-name': layout,
          'draw:style-name': onMasters.automatic.page({ 'draw:fill': 'none' }),
        },
        items,
      ),
    });
    return name;
  };

  const pageNode = (spread: Spread, page: Page, i: number): Node => {
    content.shapes.controls = [];
    const origin = translation(-page.box.x, -page.box.y);
    // What lies over both pages of a spread is written on both, but a text only once.
    const here = (item: Item): boolean => {
      if (pageOfItem(spread, item).id === page.id) return true;
      const loose = (item.kind === 'picture' || item.kind === 'shape') && !storyOf.has(item.id);
      return loose && overlap(itemBounds(spread.items, item), page.box) > 4;
    };
    const shapes = spread.order.flatMap((id) =>
      spread.items[id] && here(spread.items[id]) ? content.shapes.item(spread.items, spread.items[id], origin) : [],
    );
    const back =
      page.background.type === 'gradient' || page.background.type === 'none'
        ? {}
        : { 'draw:fill': 'solid', 'draw:fill-color': solidHex(page.background, head.swatches) };
    if (page.background.type === 'gradient') notHeld.add('Gradients behind pages');
    if (page.bleed) notHeld.add('Bleed');
    if (Object.keys(page.cues).length) notHeld.add('Cues of pages');
    const story = page.notes === undefined ? undefined : folio.stories[page.notes];
    const motion = kind === 'presentation' ? transitionOf(page) : {};
    if (kind === 'drawing' && (page.transition || page.advanceAfter !== undefined)) notHeld.add('Page transitions (drawings have none)');
    const controls = content.shapes.controls.map((c) => c.node);
    return el(
      'draw:page',
      {
        'draw:name': `Page ${i + 1}`,
        'xml:id': page.id,
        'draw:id': page.id,
        'draw:master-page-name': masterFor(page),
        'draw:style-name': content.automatic.page({
          ...back,
          ...motion,
          'presentation:background-visible': 'true',
          'presentation:background-objects-visible': String(page.showMaster),
          'presentation:display-page-number': 'true',
          'presentation:display-footer': 'true',
        }),
      },
      [
        controls.length > 0 && el('office:forms', {}, [el('form:form', { 'form:name': 'Form' }, controls)]),
        ...shapes,
        story &&
          el('presentation:notes', {}, [
            el('draw:frame', { 'presentation:class': 'notes', 'svg:width': '400pt', 'svg:height': '300pt' }, [
              el('draw:text-box', {}, content.texts.blocks(story, story.order)),
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
  const pageNodes = pages.map((p, i) => pageNode(folio.spreads[p.spread.id]!, p.page, i));
  const named = textStyles.named();
  const [language, country] = head.metadata.language.split('-');
  const defaults = el('style:default-style', { 'style:family': 'graphic' }, [
    el('style:text-properties', { 'fo:language': language, 'fo:country': country ?? 'none' }),
  ]);
  const layers = head.layerOrder.map((id) => {
    const layer = head.layers[id]!;
    const display = layer.visible ? (layer.printing ? 'always' : 'screen') : layer.printing ? 'printer' : 'none';
    return el('draw:layer', { 'draw:name': layer.name, 'draw:display': display, 'draw:protected': layer.locked ? 'true' : undefined });
  });
  return {
    content: el('office:document-content', NAMESPACES, [
      el('office:automatic-styles', {}, content.automatic.nodes),
      el('office:body', {}, [el(`office:${kind}`, {}, pageNodes)]),
    ]),
    styles: el('office:document-styles', NAMESPACES, [
      el('office:styles', {}, [...looks.definitions, defaults, ...named]),
      el('office:automatic-styles', {}, [...layouts, ...onMasters.automatic.nodes]),
      el('office:master-styles', {}, [el('draw:layer-set', {}, layers), ...[...masters.values()].map((m) => m.node)]),
    ]),
    meta: metaOf(folio),
    notHeld: notHeld.lines(),
  };
}

function metaOf({ head: { metadata } }: Folio): Node {
  return el('office:document-meta', NAMESPACES, [
    el('office:meta', {}, [
      el('dc:title', {}, [text(metadata.title)]),
      el('dc:language', {}, [text(metadata.language)]),
      ...metadata.creators.map((c) => el('dc:creator', {}, [text(c)])),
      metadata.description !== undefined && el('dc:description', {}, [text(metadata.description)]),
      ...metadata.subjects.map((s) => el('meta:keyword', {}, [text(s)])),
    ]),
  ]);
}
