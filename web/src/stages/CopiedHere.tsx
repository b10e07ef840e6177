import { Button } from 'antd';
import { ClipboardPaste } from 'lucide-react';
import type { Edit } from '@elastic-folio/core';
import { api } from '../api/client.ts';
import type { Copied } from '../document/copied.ts';
import { useCopied } from '../document/copied.ts';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';

/** Where something is put: on a page, or on something that cues can hang on. */
type Place = { spread: string; page: string } | { spread: string; holder: string };

const newMark = (): string => `k${crypto.randomUUID().slice(0, 7)}`;

function editFor(copied: Copied, place: Place): Edit | null {
  if (copied.what === 'items') {
    return 'page' in place ? { kind: 'items.paste', args: { ...place, clip: copied.clip, as: newMark() } } : null;
  }
  return 'holder' in place ? { kind: 'cues.paste', args: { ...place, copied: copied.copied, as: newMark() } } : null;
}

/** Puts down what was copied last, here or in another document; nothing where that does not belong here. */
export function CopiedHere({ place, words }: { place: Place; words: string }) {
  const copied = useCopied((s) => s.copied);
  const id = useDocument((s) => s.id);
  const change = useDocument((s) => s.change);
  const complain = useDocument((s) => s.complain);
  const edit = copied && editFor(copied, place);
  if (!copied || !edit) return null;
  const put = async (): Promise<void> => {
    try {
      // Files of another document are stored with this one first.
      if (copied.what === 'items' && copied.folio !== id)
        await api.takeFiles(id!, { from: copied.folio, media: Object.keys(copied.clip.media) });
      change([edit], newBurst());
    } catch (error) {
      complain(error instanceof Error ? error.message : 'It could not be put here.');
    }
  };
  return (
    <Button size="small" icon={<ClipboardPaste size={13} />} title={copied.name} onClick={() => void put()}>
      {words}
    </Button>
  );
}
