/** How long a leaf takes to turn, in milliseconds. */
const TURN = 620;

/**
 * Lifts the leaf of a spread, before the next spread is shown; what it gives back turns it over that. The leaf and the page
 * beside it are pictures of the old spread; the page on the leaf's other side is the new spread's own, which comes up from the
 * gutter and covers the old one.
 */
export function liftLeaf(old: Element, forward: boolean): (next: Element) => void {
  const [leaf, beside] = [copyOf(pageOf(old, forward)), copyOf(pageOf(old, !forward))];
  const isSingle = pageOf(old, true) === pageOf(old, false);
  return (next) => {
    const page = pageOf(next, !forward);
    const [lifted, laid] = forward ? ['left', 'right'] : ['right', 'left'];
    const angle = forward ? -90 : 90;
    const at = (degrees: number, origin: string): Keyframe => ({
      transform: `perspective(2200px) rotateY(${degrees}deg)`,
      transformOrigin: `${origin} center`,
    });
    if (!isSingle) document.body.append(beside);
    document.body.append(leaf);
    const up = leaf.animate([at(0, lifted), at(angle, lifted)], { duration: TURN / 2, easing: 'ease-in' });
    up.onfinish = up.oncancel = () => leaf.remove();
    page.style.zIndex = '10001';
    const down = page.animate([at(-angle, laid), at(0, laid)], {
      duration: TURN / 2,
      easing: 'ease-out',
      delay: TURN / 2,
      fill: 'backwards',
    });
    down.onfinish = down.oncancel = () => {
      beside.remove();
      page.style.zIndex = '';
    };
  };
}

/** The page of a spread that is on the leaf: the right one where it is turned forward. */
function pageOf(slot: Element, right: boolean): HTMLElement {
  const pages = slot.querySelectorAll<HTMLElement>('.page');
  return pages[right ? pages.length - 1 : 0]!;
}

/** A page as it is seen, without the names by which it is known. */
function copyOf(page: HTMLElement): HTMLElement {
  const box = page.getBoundingClientRect();
  const copy = page.cloneNode(true) as HTMLElement;
  for (const e of [copy, ...copy.querySelectorAll('[id]')]) e.removeAttribute('id');
  copy.querySelectorAll('video,audio,iframe').forEach((e) => e.remove());
  const leaf = document.createElement('div');
  leaf.className = 'leaf';
  leaf.setAttribute('aria-hidden', 'true');
  leaf.inert = true;
  // The room that its slot asks for is what its size is worked out from.
  leaf.style.cssText = `${page.closest('.slot')?.getAttribute('style') ?? ''};left:${box.left}px;top:${box.top}px;width:${box.width}px;height:${box.height}px`;
  leaf.append(copy);
  return leaf;
}
