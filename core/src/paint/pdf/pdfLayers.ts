import type { PdfCanvas } from './pdfCanvas.ts';

const text = (value: string): unknown => new String(value);
export type LayerRef = ReturnType<PdfCanvas['object']>;

/** Parts of pages that can be seen or not, and are switched by actions (ISO 32000-1, 8.11, optional content). */
export class PdfLayers {
  private readonly groups = new Map<string, LayerRef>();
  private readonly off = new Set<LayerRef>();
  private readonly oneOf: LayerRef[][] = [];

  constructor(private readonly canvas: PdfCanvas) {}

  /** The group of a part, made when it is first asked for. */
  of(id: string, name: string, isOff: boolean): LayerRef {
    let ref = this.groups.get(id);
    if (!ref) {
      ref = this.canvas.object({ Type: 'OCG', Name: text(name) });
      ref.end();
      this.groups.set(id, ref);
      if (isOff) this.off.add(ref);
    }
    return ref;
  }

  /** Groups of which one is seen at a time (table 101, RBGroups). */
  oneAtATime(refs: LayerRef[]): void {
    this.oneOf.push(refs);
  }

  /** Draws what belongs to some groups, one inside the other. */
  draw(refs: readonly LayerRef[], draw: () => void): void {
    const [first, ...rest] = refs;
    if (first) this.canvas.inLayer(first, () => this.draw(rest, draw));
    else draw();
  }

  /** Writes which groups there are, and which are seen when the file is opened (8.11.4). */
  end(): void {
    const all = [...this.groups.values()];
    if (!all.length) return;
    this.canvas.catalog({
      OCProperties: {
        OCGs: all,
        D: { Name: text('As designed'), BaseState: 'ON', OFF: [...this.off], ...(this.oneOf.length && { RBGroups: this.oneOf }) },
      },
    });
  }
}
