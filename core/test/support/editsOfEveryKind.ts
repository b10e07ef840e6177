import { copyCues, copyItems, newVeil, plainText } from '../../src/index.ts';
import type { Edit, Folio, Paragraph } from '../../src/index.ts';
import { unitsOf } from '../../src/language/index.ts';

/** One edit of every kind that a document offers something for, as a person might make it; `pick` chooses among so many. */
export function editsOfEveryKind(folio: Folio, pick: (of: number) => number, name: string): Edit[] {
  const one = <T>(list: readonly T[]): T | undefined => list[pick(list.length || 1)];
  const { head } = folio;
  const stories = Object.values(folio.stories);
  const texts = stories.flatMap((s) => Object.values(s.blocks).flatMap((b) => (b.kind === 'paragraph' ? [{ story: s, block: b }] : [])));
  const text = one(texts);
  const spread = one(Object.values(folio.spreads))!;
  const items = Object.values(spread.items);
  const item = one(items);
  const page = one(spread.pages)!;
  const styles = Object.keys(head.paragraphStyles);
  const [style, other] = [one(styles), one(styles)];
  const language = one(Object.keys(folio.editions));
  const cue = { id: `cue-${name}`, trigger: { when: 'press' as const }, steps: [{ do: 'print' as const, after: 0 }] };
  const cued = Object.values(folio.spreads).flatMap((s) =>
    Object.values(s.items).flatMap((i) => Object.keys(i.cues).map((c) => ({ s, i, c }))),
  );
  const withCue = one(cued);
  const role = { element: 'h2' as const, startsSection: false, leaveOut: false };
  const recipe = one(Object.values(folio.recipes));
  const pin = one(Object.keys(head.structure.pins));
  const shapes = items.filter((i) => i.kind === 'shape' || i.kind === 'picture');
  const seed = one(shapes);
  const grid = Object.keys(spread.grids ?? {})[0];
  const part = items.find((i) => i.kind === 'veil');
  const all: (Edit | false | undefined)[] = [
    { kind: 'document.metadata', args: { title: `Title ${name}`, description: pick(2) ? `About ${name}` : null } },
    { kind: 'document.opening', args: { fullScreen: pick(2) === 1, view: 'page', showBookmarks: true, loop: false } },
    { kind: 'layer.visible', args: { layer: one(head.layerOrder)!, visible: pick(2) === 1 } },
    { kind: 'pages.lay', args: { lay: one(['single', 'coverThenPairs', 'pairs'] as const)! } },
    { kind: 'pages.bleed', args: { bleed: pick(20) } },
    {
      kind: 'pages.motion',
      args: { pages: [page.id], transition: pick(2) ? { style: 'wipe', direction: 90, seconds: 1 } : null, advanceAfter: pick(9) },
    },
    { kind: 'styles.nameLooks', args: {} },
    { kind: 'font.standIn', args: { family: 'Marrowby Sans', by: pick(2) ? 'Arimo' : null } },
    { kind: 'recipe.set', args: { id: `recipe-${name}`, output: 'pdf', version: 1, name, settings: {} } },
    recipe && { kind: 'recipe.remove', args: { recipe: recipe.id } },
    {
      kind: 'media.add',
      args: { id: `media-${name}`, name, file: `media/${name}.png`, mediaType: 'image/png', sha256: 'a'.repeat(64), bytes: 1 },
    },
    { kind: 'edition.make', args: { language: 'nb' } },
    language !== undefined && pick(4) === 0 && { kind: 'edition.remove', args: { language } },
    language !== undefined && {
      kind: 'edition.lock',
      args: { language, lock: { did: one(['locked', 'unlocked'] as const)!, by: name, at: name } },
    },
    language !== undefined && {
      kind: 'edition.settings',
      args: { language, name, overrides: { italics: one(['bold', 'upright'] as const)! } },
    },
    language !== undefined && editionUnits(language, one(unitsOf(folio).slice(0, 40))?.id),
    style !== undefined && { kind: 'style.role', args: { style, role } },
    style !== undefined && { kind: 'styles.roles', args: { paragraph: { [style]: pick(2) ? role : null }, character: {} } },
    style !== undefined && { kind: 'style.translate', args: { of: 'paragraph', style, translate: pick(2) === 1 } },
    style !== undefined && other !== undefined && style !== other && { kind: 'styles.merge', args: { keep: style, others: [other] } },
    ...(text ? ofText(folio, text, pick, name, style) : []),
    ...(item
      ? ([
          { kind: 'item.alt', args: { spread: spread.id, item: item.id, alt: pick(2) ? `Alt ${name}` : null } },
          { kind: 'item.decoration', args: { item: item.id, decoration: pick(2) === 1 } },
          { kind: 'item.figure', args: { item: item.id, figure: pick(2) === 1 } },
          { kind: 'item.leftOut', args: { item: item.id, leftOut: pick(2) === 1 } },
          { kind: 'item.startsHidden', args: { spread: spread.id, item: item.id, hidden: pick(2) === 1 } },
          { kind: 'path.order', args: { spread: spread.id, order: [...spread.order].reverse() } },
          { kind: 'path.strands', args: { strands: [{ id: `strand-${name}`, name, entries: [{ spread: spread.id, item: item.id }] }] } },
          { kind: 'caption.link', args: { caption: item.id, figure: pick(2) ? one(items)!.id : null } },
          { kind: 'cue.set', args: { spread: spread.id, holder: item.id, cue } },
          { kind: 'part.set', args: { spread: spread.id, item: newVeil(folio, spread, item, `veil-${name}`) } },
          { kind: 'cues.paste', args: { spread: spread.id, holder: item.id, copied: copyCues(folio, [cue]), as: `q${name}`.slice(0, 20) } },
          {
            kind: 'switcher.make',
            args: { spread: spread.id, id: `turns-${name}`, name, cards: [{ id: `card-${name}`, name: 'One', items: [item.id] }] },
          },
        ] satisfies Edit[])
      : []),
    ...(item ? pasted(folio, spread, item.id, page.id, name) : []),
    withCue && { kind: 'cue.remove', args: { spread: withCue.s.id, holder: withCue.i.id, cue: withCue.c } },
    part && { kind: 'part.remove', args: { spread: spread.id, item: part.id } },
    seed && {
      kind: 'grid.set',
      args: { spread: spread.id, grid: { id: `grid-${name}`, seeds: [seed.id], rows: 1, columns: 2, dx: 20, dy: 0 } },
    },
    grid !== undefined && { kind: 'grid.remove', args: { spread: spread.id, grid } },
    pin !== undefined && { kind: 'pin.remove', args: { pin } },
  ];
  return all.filter((e): e is Edit => !!e);
}

function ofText(
  folio: Folio,
  { story, block }: { story: Folio['stories'][string]; block: Paragraph },
  pick: (of: number) => number,
  name: string,
  style: string | undefined,
): (Edit | false | undefined)[] {
  const length = plainText(block.content).length;
  const [from, to] = [pick(length + 1), pick(length + 1)].sort((a, b) => a - b) as [number, number];
  const place = (offset: number) => ({ paragraphId: block.id, offset });
  const span = { type: 'span' as const, text: `typed ${name}` };
  const words = { story: story.id, paragraph: block.id, from, to };
  return [
    { kind: 'text.replace', args: { story: story.id, from: place(from), to: place(to), content: [[span]], newIds: [] } },
    { kind: 'text.replace', args: { story: story.id, from: place(to), to: place(to), content: [[], [span]], newIds: [`p-${name}`] } },
    style !== undefined && { kind: 'paragraph.style', args: { story: story.id, paragraph: block.id, style } },
    { kind: 'paragraph.language', args: { story: story.id, paragraphs: [block.id], language: pick(2) ? 'de' : null } },
    { kind: 'paragraph.translate', args: { story: story.id, paragraph: block.id, translate: pick(2) === 1 } },
    { kind: 'paragraph.sectionStart', args: { paragraph: block.id, starts: pick(2) === 1 } },
    { kind: 'words.language', args: { ...words, language: 'la' } },
    { kind: 'words.translate', args: { ...words, translate: pick(2) === 1 } },
    { kind: 'outline.entry', args: { paragraph: block.id, entry: pick(2) ? { text: name, leaveOut: false } : null } },
    { kind: 'list.alphabetical', args: { list: `list-${name}`, story: story.id, entries: [block.id] } },
    {
      kind: 'pin.set',
      args: {
        id: `pin-${name}`,
        item: Object.values(folio.spreads).flatMap((s) => s.order)[0] ?? 'none',
        paragraph: block.id,
        offset: 0,
        as: 'after',
      },
    },
    { kind: 'text.closeUp', args: { story: story.id } },
  ];
}

function editionUnits(language: string, unit: string | undefined): Edit | false {
  if (unit === undefined) return false;
  return {
    kind: 'edition.units',
    args: { language, units: { [unit]: { segments: [{ source: [], target: [{ type: 'text', text: 'Gesagt' }], state: 'translated' }] } } },
  };
}

function pasted(folio: Folio, spread: Folio['spreads'][string], item: string, page: string, name: string): Edit[] {
  try {
    return [
      { kind: 'items.paste', args: { spread: spread.id, page, clip: copyItems(folio, spread, [item]), as: `c${name}`.slice(0, 20) } },
    ];
  } catch {
    // What flows on elsewhere, or belongs to a master page, cannot be copied.
    return [];
  }
}
