import { useState } from 'react';
import type { MovingPart } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';

/** Some settings of a part; what is given as undefined is not set any more. */
type Setting<P> = (more: { [K in keyof P]?: P[K] | undefined }) => void;

/** Changes a part: each choice is a step that can be taken back, what is typed into a part is one together. */
export function useSetting<P extends MovingPart>(spread: string, item: P): { set: Setting<P>; type: Setting<P> } {
  const change = useDocument((s) => s.change);
  const [typing] = useState(newBurst);
  const by =
    (burst?: string): Setting<P> =>
    (more) =>
      change([{ kind: 'part.set', args: { spread, item: { ...item, ...more } as never } }], burst ?? newBurst());
  return { set: by(), type: by(typing) };
}
