import type { Inline, Paragraph } from '../folio/story.ts';
import { roomOfAnchored } from './anchored.ts';
import { factsOf } from './blockFacts.ts';
import type { Flow, FlowFrame } from './flow.ts';
import { linesOf } from './prepare.ts';
import type { Prepared, Room } from './prepare.ts';
import type { BuiltLine } from './setLine.ts';

/** A paragraph of a story that is being set, with what is generated in it where it stands; null: on no page. */
export function preparedIn(flow: Flow, paragraph: Paragraph, frame: FlowFrame | null): Prepared {
  const prepared = flow.cache.get(flow.folio.head, paragraph, flow.fonts, {
    field: (node) => flow.field(node, frame),
    noteNumber: (id) => flow.noteNumbers.get(id) ?? '',
    label: flow.labels.get(paragraph.id) ?? null,
    anchored: (id) => roomOfAnchored(flow.story, id),
  });
  if (prepared.missing.length) flow.missing.set(paragraph.id, prepared.missing);
  return prepared;
}

type Note = Inline & { type: 'note' };

/** A note of a story, with the paragraph that refers to it. */
export function findNote({ story }: Flow, id: string): { note: Note; owner: Paragraph } | null {
  for (const owner of Object.values(story.blocks)) {
    const note = factsOf(owner).notes.find((n) => n.id === id);
    if (note && owner.kind === 'paragraph') return { note, owner };
  }
  return null;
}

/** The lines of paragraphs that stand under one another, each from its beginning. */
export const linesOfAll = (flow: Flow, ids: readonly string[], room: Room, prepare: (paragraph: Paragraph) => Prepared): BuiltLine[] =>
  ids.flatMap((id) => {
    const block = flow.story.blocks[id];
    return block?.kind === 'paragraph' ? linesOf(prepare(block), 0, room).all() : [];
  });
