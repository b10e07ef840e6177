import { Button } from 'antd';
import { currentParagraph, plainText, toGraphemeBoundary } from '@elastic-folio/core';
import type { Edit, EditArgs, Folio, Paragraph } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { EDIT_NAMES } from '../document/editNames.ts';
import type { SetAside } from '../document/editSession.ts';

/** Changes of one’s own that could not be saved, until they are copied, put in again, or let go. */
export function SetAsideList() {
  const list = useDocument((s) => s.setAside);
  if (!list.length) return null;
  return (
    <section className="set-aside" aria-label="Changes that were not saved" role="alert">
      <h2>{list.length === 1 ? 'One change was not saved' : `${list.length} changes were not saved`}</h2>
      <ul>
        {list.map((one) => (
          <Entry key={one.id} one={one} />
        ))}
      </ul>
    </section>
  );
}

function Entry({ one }: { one: SetAside }) {
  const folio = useDocument((s) => s.folio);
  const tryChange = useDocument((s) => s.tryChange);
  const dismiss = useDocument((s) => s.dismissAside);
  const again = folio && editAgain(folio, one);
  return (
    <li>
      <p>
        <b>{EDIT_NAMES[one.edit.kind]}.</b> {one.why}
      </p>
      {one.text && <blockquote>{one.text}</blockquote>}
      <div className="row">
        {one.text && (
          <Button size="small" onClick={() => void navigator.clipboard.writeText(one.text)}>
            Copy text
          </Button>
        )}
        {again && (
          <Button size="small" onClick={() => tryChange([again], newBurst()) && dismiss(one.id)}>
            {one.text ? 'Insert into the text' : 'Apply again'}
          </Button>
        )}
        <Button size="small" type="text" onClick={() => dismiss(one.id)}>
          Discard
        </Button>
      </div>
    </li>
  );
}

/** The edit that brings a change in as the document is now; null where it has no place there any more. */
function editAgain(folio: Folio, { edit, text }: SetAside): Edit | null {
  if (edit.kind !== 'text.replace') return edit;
  const place = placeFor(folio, edit.args);
  if (!place) return null;
  const lines = text.split('\n');
  return {
    kind: 'text.replace',
    args: {
      story: edit.args.story,
      from: place,
      to: place,
      content: lines.map((line) => (line ? [{ type: 'span', text: line }] : [])),
      newIds: lines.slice(1).map(() => crypto.randomUUID()),
    },
  };
}

/** Where a text belongs: where it was typed, or at the end of the text that it was typed into. */
function placeFor(folio: Folio, { story: id, from }: EditArgs<'text.replace'>): { paragraphId: string; offset: number } | null {
  const story = folio.stories[id];
  if (!story) return null;
  const last = story.order.findLast((p) => story.blocks[p]?.kind === 'paragraph');
  const paragraphId = currentParagraph(story, from.paragraphId) ?? last;
  const block = paragraphId === undefined ? undefined : (story.blocks[paragraphId] as Paragraph | undefined);
  if (!block?.content) return null;
  const words = plainText(block.content);
  return { paragraphId: block.id, offset: block.id === from.paragraphId ? toGraphemeBoundary(words, from.offset) : words.length };
}
