import { Button } from 'antd';
import { Trash2 } from 'lucide-react';
import type { Item } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { EmbedSettings } from './EmbedSettings.tsx';
import { FieldSettings } from './FieldSettings.tsx';
import { MediaSettings } from './MediaSettings.tsx';
import { SwitcherTurn } from './SwitcherTurn.tsx';
import { VeilSettings } from './VeilSettings.tsx';

interface Props {
  spread: string;
  item: Item;
}

/** The settings of a part that moves or is filled in, by its kind. Nothing for all else. */
export function PartSettings({ spread, item }: Props) {
  switch (item.kind) {
    case 'switcher':
      return <SwitcherTurn spread={spread} item={item} />;
    case 'veil':
      return <VeilSettings spread={spread} item={item} />;
    case 'field':
      return <FieldSettings spread={spread} item={item} />;
    case 'media':
      return <MediaSettings spread={spread} item={item} />;
    case 'embed':
      return <EmbedSettings spread={spread} item={item} />;
    default:
      return null;
  }
}

/** Takes a part off the page; what is drawn below it stays. */
export function RemovePart({ spread, item, onRemoved }: Props & { onRemoved: () => void }) {
  const change = useDocument((s) => s.change);
  return (
    <Button
      size="small"
      icon={<Trash2 size={13} />}
      onClick={() => {
        change([{ kind: 'part.remove', args: { spread, item: item.id } }], newBurst());
        onRemoved();
      }}
    >
      Take it off the page
    </Button>
  );
}
