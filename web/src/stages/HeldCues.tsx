import { Button } from 'antd';
import { Trash2, X } from 'lucide-react';
import { itemsById, sentenceOf } from '@elastic-folio/core';
import type { Cue } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { itemName } from '../table/SpreadView.tsx';

interface Props {
  spread: string;
  holder: string;
  label: string;
  cues: readonly Cue[];
  fixed?: boolean;
}

/** The cues that hang on an item or a page, each as a sentence; cues and single steps can be taken off. */
export function HeldCues({ spread, holder, label, cues, fixed = false }: Props) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const nameOf = (id: string): string => {
    const item = itemsById(folio).get(id);
    return item ? itemName(folio, item) : id;
  };
  const without = (cue: Cue, step: number): void =>
    change([{ kind: 'cue.set', args: { spread, holder, cue: { ...cue, steps: cue.steps.filter((_, i) => i !== step) } } }], newBurst());
  return (
    <ul className="cue-list" aria-label={label}>
      {cues.map((cue) => {
        const { when, then } = sentenceOf(folio, cue, nameOf);
        return (
          <li key={cue.id}>
            <span className="cue-words">
              {when} → {then.length === 0 && 'nothing'}
              {then.map((t, i) => (
                <span key={i} className="cue-step">
                  <b>{t}</b>
                  {then.length > 1 && !fixed && (
                    <button className="quiet" aria-label={`Leave out: ${t}`} onClick={() => without(cue, i)}>
                      <X size={11} aria-hidden />
                    </button>
                  )}
                </span>
              ))}
            </span>
            <Button
              type="text"
              size="small"
              icon={<Trash2 size={13} />}
              aria-label="Remove this cue"
              disabled={fixed}
              onClick={() => change([{ kind: 'cue.remove', args: { spread, holder, cue: cue.id } }], newBurst())}
            />
          </li>
        );
      })}
    </ul>
  );
}
