/** Pixels of a picture, red, green, blue and opacity one after the other, a byte each. */
export interface RawPixels {
  data: Uint8Array;
  width: number;
  height: number;
}

/** As bright as this in its darkest colour, a pixel is white: packed photographs are not quite (own choice). */
const WHITE = 248;
/** Down to here white turns into what stands on it: soft edges and shadows. */
const LEAST = 200;
/** Of a picture that stands on white, at least so much of the edge is white; skies that are burnt out rarely surround a picture (own choice). */
const WHITE_EDGE = 0.75;

/** Whether what a picture shows stands on white, nearly all around its edge. */
export function isOnWhite(pixels: RawPixels): boolean {
  const { data } = pixels;
  let white = 0;
  let all = 0;
  for (const at of edgeOf(pixels)) {
    // What is seen through already is no ground to take away.
    if (data[at * 4 + 3]! < 255) return false;
    all++;
    if (darkest(data, at) >= WHITE) white++;
  }
  return all > 0 && white >= all * WHITE_EDGE;
}

/**
 * The same pixels, seen through where white reaches in from the edge. White that is surrounded stays: eyes, paper, snow. On white
 * the picture looks as before, since what is half there is given the colour that makes up for it.
 */
export function seenThrough(pixels: RawPixels): Uint8Array {
  const { data, width, height } = pixels;
  const out = Uint8Array.from(data);
  const seen = new Uint8Array(width * height);
  const queue: number[] = [];
  const reach = (at: number): void => {
    if (seen[at] || darkest(data, at) < LEAST) return;
    seen[at] = 1;
    queue.push(at);
  };
  for (const at of edgeOf(pixels)) if (darkest(data, at) >= WHITE) reach(at);
  while (queue.length) {
    const at = queue.pop()!;
    const x = at % width;
    const cover = Math.min(1, Math.max(0, (WHITE - darkest(data, at)) / (WHITE - LEAST)));
    out[at * 4 + 3] = Math.round(255 * cover);
    for (let c = 0; c < 3; c++) out[at * 4 + c] = cover > 0 ? Math.max(0, Math.round(255 - (255 - data[at * 4 + c]!) / cover)) : 255;
    if (x > 0) reach(at - 1);
    if (x < width - 1) reach(at + 1);
    if (at >= width) reach(at - width);
    if (at < width * (height - 1)) reach(at + width);
  }
  return out;
}

const darkest = (data: Uint8Array, at: number): number => Math.min(data[at * 4]!, data[at * 4 + 1]!, data[at * 4 + 2]!);

/** Every pixel of the edge, once. */
function* edgeOf({ width, height }: RawPixels): Generator<number> {
  for (let x = 0; x < width; x++) {
    yield x;
    if (height > 1) yield (height - 1) * width + x;
  }
  for (let y = 1; y < height - 1; y++) {
    yield y * width;
    if (width > 1) yield y * width + width - 1;
  }
}
