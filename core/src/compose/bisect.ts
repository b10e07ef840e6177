/** The first of `count` indices for which `holds`, by halving: it must hold for all after that. `count` where it holds for none. */
export function firstIndex(count: number, holds: (i: number) => boolean): number {
  let [low, high] = [0, count];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (holds(mid)) high = mid;
    else low = mid + 1;
  }
  return low;
}
