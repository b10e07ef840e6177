import { fieldText } from '../../compose/fieldText.ts';
import { listLabels } from '../../compose/listLabels.ts';
import type { ListLabel } from '../../compose/listLabels.ts';
import { noteNumbers } from '../../compose/notes.ts';
import { resolveParagraph, resolveSpan } from '../../folio/resolve.ts';
import type { Inline, Story } from '../../folio/story.ts';
import type { CharacterProperties } from '../../folio/styles.ts';
import { OBJECT, SOFT_HYPHEN } from '../../folio/text.ts';
import type { BoxBlock } from '../../structure/boxBlocks.ts';
import { GAP, widenedBy } from '../office/gapInLine.ts';
import { guidOf } from '../ooxml/guid.ts';
import type { Child, Xml } from '../assets/xml.ts';
import { all, el, words } from '../assets/xml.ts';
import { labelOf, paragraphLook } from './paragraphLook.ts';
import type { Label } from './paragraphLook.ts';
import { runLook } from './runLook.ts';
import type { SlideContext } from './slideContext.ts';

/** Paragraphs of a box, or of a cell; never none, since the format asks for one (21.1.2.1). `note`: the number of the one that they are. */
export function paragraphsXml(story: Story, blocks: readonly BoxBlock[], c: SlideContext, note?: string): Xml {
  const labels = labelsIn(story, c);
  const { numbers } = noteNumbers(story, story.order);
  const lists = new Map<string, { begins: number; last: number }>();
  const paragraphs = blocks.flatMap((part, i): Xml[] => {
    const { block, begins } = part;
    if (block.kind !== 'paragraph') return [];
    const said = new Said();
    const resolved = resolveParagraph(c.folio.head, block);
    const label = begins ? labelOf(resolved, labels.get(block.id)?.text, c) : null;
    const number = beginOf(label, resolved.paragraph.list?.style, lists);
    const look = paragraphLook(resolved, { pitch: c.leading(block).points, label, begins: number, isFirst: i === 0 && begins }, c);
    const before = [
      i === 0 && note !== undefined && runXml(note, { ...resolved.character, position: 'superscript' }, c, said),
      i === 0 && note !== undefined && runXml(' ', resolved.character, c, said),
      label?.kind === 'words' && runXml(`${label.text}\t`, resolved.character, c, said),
    ];
    const runs = block.content.map((node) => inlineXml(story, resolved.character, node, numbers, c, said));
    c.wrote?.(part, said.text);
    return [el('a:p', {}, look, before, runs, runLook('a:endParaRPr', resolved.character, c))];
  });
  return paragraphs.length ? all(paragraphs) : el('a:p');
}

const labelsByStory = new WeakMap<Story, Map<string, ListLabel>>();
function labelsIn(story: Story, c: SlideContext): Map<string, ListLabel> {
  let known = labelsByStory.get(story);
  if (!known) labelsByStory.set(story, (known = listLabels(c.folio.head, story, story.order)));
  return known;
}

/** With which number the list of an entry begins in its box: entries of one list count on from there, until something else comes between. */
function beginOf(label: Label | null, list: string | undefined, lists: Map<string, { begins: number; last: number }>): number {
  if (label?.kind !== 'counted') {
    if (!label) lists.clear();
    return 1;
  }
  const key = `${list} ${label.level} ${label.scheme}`;
  const known = lists.get(key);
  const begins = known && known.last === label.number - 1 ? known.begins : label.number;
  lists.set(key, { begins, last: label.number });
  return begins;
}

/** All that is said in a paragraph of a box. */
class Said {
  text = '';
}

/** Words of one look. Soft hyphens are left out: slides divide no words, and show them. */
function runXml(text: string, look: CharacterProperties, c: SlideContext, said: Said, press: Xml | null = null): Xml {
  const properties = runLook('a:rPr', look, c, press);
  const shown = text.replaceAll(SOFT_HYPHEN, '');
  said.text += shown;
  const parts = shown.split('\n');
  return all(
    parts.map((part, i): Child => [
      i > 0 && el('a:br', {}, properties),
      part !== '' && el('a:r', {}, properties, el('a:t', {}, words(part))),
    ]),
  );
}

function inlineXml(
  story: Story,
  character: CharacterProperties,
  node: Inline,
  numbers: ReadonlyMap<string, string>,
  c: SlideContext,
  said: Said,
): Xml {
  switch (node.type) {
    case 'span': {
      const link = node.link === undefined ? undefined : story.links[node.link];
      const press = link ? c.press(link.destination, link.title, c.page, c.part) : null;
      return runXml(node.text, resolveSpan(c.folio.head, character, node), c, said, press);
    }
    case 'softReturn':
      said.text += '\n';
      return el('a:br', {}, runLook('a:rPr', character, c));
    case 'tab':
      return runXml('\t', character, c, said);
    case 'field': {
      const shown = fieldText(c.folio, node, { ...c.fields, page: c.page });
      if (node.field === 'pageNumber' && c.countsPages) {
        said.text += OBJECT;
        return numberField(node.id, shown, character, c);
      }
      return shown ? runXml(shown, character, c, said) : all();
    }
    case 'note':
      return runXml(numbers.get(node.id) ?? '', { ...character, position: 'superscript' }, c, said);
    case 'ruby':
      return runXml(node.base, character, c, said);
    case 'anchor':
      return node.place === 'inline' ? gapXml(story, node, character, c, said) : all();
  }
}

/** The number of a slide, counted by the program that shows it (21.1.2.2.4). `id`: of the field, of which a GUID is made. */
function numberField(id: string, shown: string, look: CharacterProperties, c: SlideContext): Xml {
  return el('a:fld', { id: guidOf(`number ${c.page} ${id}`), type: 'slidenum' }, runLook('a:rPr', look, c), el('a:t', {}, words(shown)));
}

/** No text can hold a picture: it lies over a space that is as wide (20.1.10.75: spacing of a letter in hundredths of a point). */
function gapXml(story: Story, node: Inline & { type: 'anchor' }, look: CharacterProperties, c: SlideContext, said: Said): Xml {
  const item = story.items[node.item];
  if (!item || !('size' in item)) return all();
  const tracking = (widenedBy(item.size.width, look, c.fonts) / look.size) * 1000;
  return runXml(GAP, { ...look, tracking: Math.min(10_000, Math.max(-1000, tracking)) }, c, said);
}
