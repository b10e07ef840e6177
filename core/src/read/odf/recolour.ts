import { percentOf } from './lengths.ts';

type Attributes = Record<string, string>;

/** How a frame changes its picture's colours (OpenDocument 1.3 part 3, 20.88 draw:color-mode and what stands beside it). */
export interface ColourChanges {
  mode: 'standard' | 'greyscale' | 'mono' | 'watermark';
  /** From -1 (black) to 1 (white). */
  luminance: number;
  /** From -1 (grey) to 1. */
  contrast: number;
  gamma: number;
}

/** The changes that graphic properties ask for; null where there are none. */
export function colourChanges(a: Attributes): ColourChanges | null {
  const mode = (['greyscale', 'mono', 'watermark'] as const).find((m) => m === a['draw:color-mode']) ?? ('standard' as const);
  const share = (name: string): number => Math.min(1, Math.max(-1, percentOf(a[name]) ?? 0));
  const changes: ColourChanges = {
    mode,
    luminance: share('draw:luminance'),
    contrast: share('draw:contrast'),
    gamma: percentOf(a['draw:gamma']) ?? 1,
  };
  const { luminance, contrast, gamma } = changes;
  return mode === 'standard' && !luminance && !contrast && (gamma === 1 || gamma <= 0) ? null : changes;
}

/** A watermark is as much lighter, and as much flatter (common practice of office programs: half as light again, less contrast). */
const WATERMARK = { luminance: 0.5, contrast: -0.7 };

/** A picture with its colours changed, as an SVG of its own size in pixels. */
export function recolouredSvg(href: string, { width, height }: { width: number; height: number }, changes: ColourChanges): string {
  const mark = changes.mode === 'watermark' ? WATERMARK : { luminance: 0, contrast: 0 };
  const luminance = Math.min(1, changes.luminance + mark.luminance);
  const contrast = Math.max(-1, changes.contrast + mark.contrast);
  const slope = contrast >= 0 ? 1 / Math.max(0.01, 1 - contrast) : 1 + contrast;
  const intercept = 0.5 - 0.5 * slope + luminance;
  const all = (f: string): string =>
    `<feComponentTransfer>${['R', 'G', 'B'].map((c) => `<feFunc${c} ${f}/>`).join('')}</feComponentTransfer>`;
  const steps = [
    changes.mode === 'greyscale' || changes.mode === 'mono' ? '<feColorMatrix type="saturate" values="0"/>' : '',
    slope !== 1 || intercept !== 0 ? all(`type="linear" slope="${slope}" intercept="${intercept}"`) : '',
    changes.gamma !== 1 && changes.gamma > 0 ? all(`type="gamma" amplitude="1" exponent="${1 / changes.gamma}" offset="0"`) : '',
    changes.mode === 'mono' ? all('type="discrete" tableValues="0 1"') : '',
  ].join('');
  const [w, h] = [Math.max(1, Math.round(width)), Math.max(1, Math.round(height))];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}"><filter id="f" x="0" y="0" width="1" height="1" color-interpolation-filters="sRGB">${steps}</filter><image width="${w}" height="${h}" preserveAspectRatio="none" filter="url(#f)" href="${href}"/></svg>`;
}
