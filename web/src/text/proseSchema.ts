import { Schema } from 'prosemirror-model';
import type { Mark, Node } from 'prosemirror-model';
import type { Head, Inline, Paragraph, Story } from '@elastic-folio/core';
import { normalise, resolveParagraph } from '@elastic-folio/core';

/** A story as an editor shows it: paragraphs with their ids, spans with their look as one mark, everything else whole. */
export const schema = new Schema({
  nodes: {
    doc: { content: 'paragraph+' },
    paragraph: {
      attrs: {
        id: { default: '' },
        style: { default: '' },
        name: { default: '' },
        direction: { default: 'ltr' },
        language: { default: '' },
      },
      content: 'inline*',
      parseDOM: [{ tag: 'p' }],
      // Direction decides how the cursor moves and how mixed text is ordered; language is for spelling and speech.
      toDOM: ({ attrs }) => [
        'p',
        {
          'data-style': attrs['name'] as string,
          ...(attrs['direction'] === 'rtl' && { dir: 'rtl' }),
          ...(attrs['language'] && { lang: attrs['language'] as string }),
        },
        0,
      ],
    },
    text: { group: 'inline' },
    softReturn: { group: 'inline', inline: true, selectable: false, parseDOM: [{ tag: 'br' }], toDOM: () => ['br'] },
    object: {
      group: 'inline',
      inline: true,
      atom: true,
      attrs: { node: {} },
      toDOM: (node) => [
        'span',
        { class: 'text-object', title: objectName(node.attrs['node'] as Inline) },
        objectName(node.attrs['node'] as Inline),
      ],
    },
  },
  marks: {
    look: {
      attrs: { style: { default: null }, overrides: { default: null }, link: { default: null }, translate: { default: null } },
      excludes: '_',
      toDOM: (mark) => ['span', { class: mark.attrs['link'] ? 'look link' : 'look', style: cssOf(mark) }, 0],
    },
  },
});

const objectName = (node: Inline): string =>
  ({ span: '', softReturn: '', tab: '⇥', field: 'field', anchor: 'item', note: 'note', ruby: 'ruby' })[node.type];

function cssOf(mark: Mark): string {
  const o = mark.attrs['overrides'] as { fontWeight?: number; fontStyle?: string } | null;
  const style = mark.attrs['style'] as string | null;
  return [
    ...(style === 'strong' || (o?.fontWeight ?? 400) >= 600 ? ['font-weight:650'] : []),
    ...(style === 'emphasis' || o?.fontStyle === 'italic' ? ['font-style:italic'] : []),
  ].join(';');
}

function inlineToNode(node: Inline): Node {
  if (node.type === 'softReturn') return schema.node('softReturn');
  if (node.type !== 'span') return schema.node('object', { node });
  const plain = !node.style && !node.overrides && !node.link && node.translate === undefined;
  return schema.text(
    node.text,
    plain
      ? []
      : [
          schema.mark('look', {
            style: node.style ?? null,
            overrides: node.overrides ?? null,
            link: node.link ?? null,
            translate: node.translate ?? null,
          }),
        ],
  );
}

interface Look {
  style: string | null;
  overrides: object | null;
  link: string | null;
  translate: false | null;
}

export function inlineOf(node: Node): Inline[] {
  const out: Inline[] = [];
  node.forEach((child) => {
    if (child.type.name === 'softReturn') out.push({ type: 'softReturn' });
    else if (child.type.name === 'object') out.push(child.attrs['node'] as Inline);
    else {
      const a = child.marks[0]?.attrs as Look | undefined;
      out.push({
        type: 'span',
        text: child.text ?? '',
        ...(a?.style && { style: a.style }),
        ...(a?.overrides && { overrides: a.overrides }),
        ...(a?.link && { link: a.link }),
        ...(a?.translate === false && { translate: false as const }),
      });
    }
  });
  return normalise(out);
}

/** The paragraphs of a story that an editor can show, by their ids; tables stay where they are and are passed over. */
export const editable = (story: Story): string[] => story.order.filter((id) => story.blocks[id]?.kind === 'paragraph');

export const storyToDoc = (head: Pick<Head, 'paragraphStyles'>, story: Story, ids: readonly string[] = editable(story)): Node =>
  schema.node(
    'doc',
    null,
    ids.map((id) => {
      const p = story.blocks[id] as Paragraph;
      const { paragraph, character } = resolveParagraph(head, p);
      const name = head.paragraphStyles[p.style]?.name ?? p.style;
      const attrs = { id: p.id, style: p.style, name, direction: paragraph.direction, language: character.language };
      return schema.node('paragraph', attrs, p.content.map(inlineToNode));
    }),
  );
