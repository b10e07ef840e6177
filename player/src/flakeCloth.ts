import { flakeKey } from './flakesAlong.ts';
import type { Veil } from './program.ts';

/** How long a flake takes to fade, in ms. */
const FADE = 350;
/** Pixels a cloth may have across: more would take memory, and nobody sees them. */
const MOST = 4096;

interface Flake {
  column: number;
  row: number;
  /** When it began to go. */
  since?: number;
}

/**
 * Flakes drawn on one canvas: hundreds of them move without the browser laying out, styling or layering anything. Only what
 * changes is drawn again, and nothing is while nothing goes.
 */
export class FlakeCloth {
  readonly canvas: HTMLCanvasElement;
  private readonly flakes = new Map<string, Flake>();
  private readonly going = new Map<string, Flake>();
  private readonly picture: HTMLImageElement | null = null;
  private readonly outline: Path2D;
  private size = 0;
  private frame = 0;

  constructor(
    private readonly doc: Document,
    private readonly about: Veil,
    private readonly box: HTMLElement,
  ) {
    this.outline = new Path2D(about.clip);
    this.canvas = doc.createElement('canvas');
    this.canvas.className = 'cloth';
    this.canvas.setAttribute('aria-hidden', 'true');
    about.rows.forEach((columns, row) => columns.forEach((column) => this.flakes.set(flakeKey(column, row), { column, row })));
    if (about.cover) {
      this.picture = doc.createElement('img');
      this.picture.onload = () => this.drawAll();
      this.picture.src = about.cover.src;
    }
    this.tell();
  }

  get left(): number {
    return this.flakes.size;
  }

  has(key: string): boolean {
    return this.flakes.has(key);
  }

  keys(): string[] {
    return [...this.flakes.keys()];
  }

  /** Draws all anew, for the pixels that the screen has now. */
  fit(): void {
    const { offsetWidth: width, offsetHeight: height } = this.box;
    const shown = (window.devicePixelRatio * this.box.getBoundingClientRect().width) / (width || 1) || 1;
    const scale = Math.min(shown, MOST / Math.max(width, height, 1));
    this.canvas.width = Math.ceil(width * scale);
    this.canvas.height = Math.ceil(height * scale);
    this.context()?.setTransform(scale, 0, 0, scale, 0, 0);
    // Flakes overlap by a whole pixel of the screen at least, however small the page is shown: then no seam lets light through.
    this.size = Math.max(this.about.size, this.about.pitch + 1 / scale);
    this.drawAll();
  }

  /** Takes flakes off: at once, or one after another as they fade. */
  lift(keys: readonly string[], atOnce: boolean): void {
    for (const key of keys) {
      const flake = this.flakes.get(key);
      if (!flake) continue;
      this.flakes.delete(key);
      if (!atOnce) this.going.set(key, { ...flake, since: performance.now() });
      this.redraw(flake);
    }
    this.tell();
    if (this.going.size && !this.frame) this.frame = requestAnimationFrame(this.fade);
  }

  private readonly fade = (now: number): void => {
    this.frame = 0;
    for (const [key, flake] of this.going) {
      if (now - flake.since! >= FADE) this.going.delete(key);
      this.redraw(flake);
    }
    if (this.going.size) this.frame = requestAnimationFrame(this.fade);
  };

  private tell(): void {
    this.canvas.dataset.left = String(this.flakes.size);
  }

  private context(): CanvasRenderingContext2D | null {
    return this.canvas.getContext('2d');
  }

  private drawAll(): void {
    const c = this.context();
    if (!c) return;
    c.clearRect(0, 0, this.canvas.width, this.canvas.height);
    c.save();
    c.clip(this.outline);
    for (const flake of [...this.flakes.values(), ...this.going.values()]) this.draw(c, flake);
    c.restore();
  }

  /** The place of a flake with all that lies over it: its neighbours overlap it. */
  private redraw({ column, row }: Flake): void {
    const c = this.context();
    if (!c) return;
    const { pitch } = this.about;
    c.save();
    c.beginPath();
    c.rect(column * pitch, row * pitch, this.size, this.size);
    c.clip();
    c.clearRect(column * pitch, row * pitch, this.size, this.size);
    c.clip(this.outline);
    const reach = Math.ceil(this.size / pitch) - 1;
    for (let y = row - reach; y <= row + reach; y++)
      for (let x = column - reach; x <= column + reach; x++) {
        const key = flakeKey(x, y);
        const flake = this.flakes.get(key) ?? this.going.get(key);
        if (flake) this.draw(c, flake);
      }
    c.restore();
  }

  private draw(c: CanvasRenderingContext2D, { column, row, since }: Flake): void {
    const { pitch, fill, cover } = this.about;
    const [x, y] = [column * pitch, row * pitch];
    c.globalAlpha = since === undefined ? 1 : Math.max(0, 1 - (performance.now() - since) / FADE);
    c.fillStyle = fill;
    c.fillRect(x, y, this.size, this.size);
    const { picture } = this;
    if (!picture?.complete || !picture.naturalWidth || !cover) return;
    if (cover.each) return c.drawImage(picture, x, y, this.size, this.size);
    const [sx, sy] = [picture.naturalWidth / cover.width, picture.naturalHeight / cover.height];
    c.drawImage(picture, x * sx, y * sy, this.size * sx, this.size * sy, x, y, this.size, this.size);
  }

  /** What lies below a place from which the flakes are gone is pressed as if there were no cloth. */
  passPress(e: MouseEvent): void {
    this.canvas.style.pointerEvents = 'none';
    const below = this.doc.elementFromPoint(e.clientX, e.clientY);
    this.canvas.style.pointerEvents = '';
    if (below instanceof HTMLElement) below.click();
  }
}
