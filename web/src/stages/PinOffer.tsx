import { Button } from 'antd';
import { Pin } from 'lucide-react';
import { readText } from '@elastic-folio/core';
import type { Edit, PinSuggestion } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';

/** The change that takes a suggestion. */
export const pinEdit = ({ item, paragraph }: PinSuggestion): Edit => ({
  kind: 'pin.set',
  args: { id: `pin-${item}`, item, paragraph, offset: 0, as: 'after' },
});

/** A place that suggests itself for something to be read at, with the reason. */
export function PinOffer({ suggestion }: { suggestion: PinSuggestion }) {
  const change = useDocument((s) => s.change);
  const stories = useDocument((s) => s.folio!.stories);
  const block = Object.values(stories)
    .map((s) => s.blocks[suggestion.paragraph])
    .find((b) => b);
  const text = block?.kind === 'paragraph' ? readText(block).trim() : '';
  return (
    <p className="pin-offer">
      <span className="soft">
        “{text.length > 50 ? `${text.slice(0, 48)}…` : text}”: {suggestion.reason}.
      </span>{' '}
      <Button size="small" icon={<Pin size={13} />} onClick={() => change([pinEdit(suggestion)], newBurst())}>
        Pin it there
      </Button>
    </p>
  );
}
