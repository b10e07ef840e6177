import { Select } from 'antd';
import { paragraphRole, paragraphsOf, pathOf, storyOfFrame } from '@elastic-folio/core';
import type { Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { itemName } from '../table/SpreadView.tsx';

/** What a caption is the caption of, where that is not plain from the layout. */
export function CaptionLink({ spread, frame }: { spread: Spread; frame: string }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const story = folio.stories[storyOfFrame(folio).get(frame) ?? ''];
  const isCaption = story && [...paragraphsOf(story)].some((p) => paragraphRole(folio.head, p.style).element === 'figcaption');
  if (!isCaption) return null;
  const figures = pathOf(folio, spread).filter((i) => i.kind !== 'textFrame');
  return (
    <div className="pin">
      <h2>Caption of</h2>
      <Select
        aria-label="Caption of"
        allowClear
        placeholder="What stands next to it"
        value={folio.head.structure.captions[frame]}
        options={figures.map((f) => ({ value: f.id, label: itemName(folio, f) }))}
        onChange={(figure: string | undefined) =>
          change([{ kind: 'caption.link', args: { caption: frame, figure: figure ?? null } }], newBurst())
        }
      />
    </div>
  );
}
