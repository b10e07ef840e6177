import { useRef } from 'react';
import type { Transition } from '@elastic-folio/core';
import { transitionFrames } from '@elastic-folio/player';

interface Props {
  label: string;
  transition: Transition;
  chosen: boolean;
  onChoose: () => void;
}

/** A transition in small: it plays, as the player plays it, when it is pointed at, stepped to or chosen. */
export function TransitionSample({ label, transition, chosen, onChoose }: Props) {
  const page = useRef<HTMLSpanElement>(null);
  const show = (): void => {
    if (matchMedia('(prefers-reduced-motion: reduce)').matches) return;
    const { axis = 'horizontal', motion = 'inward' } = transition;
    page.current?.animate(transitionFrames({ ...transition, axis, motion }), {
      duration: Math.max(0.3, transition.seconds) * 1000,
      easing: 'ease-in-out',
    });
  };
  return (
    <button
      type="button"
      role="radio"
      aria-checked={chosen}
      className={chosen ? 'transition-sample chosen' : 'transition-sample'}
      onPointerEnter={show}
      onFocus={show}
      onClick={() => {
        onChoose();
        show();
      }}
    >
      <span className="old-page">
        <span className="new-page" ref={page} />
      </span>
      {label}
    </button>
  );
}
