import { escape } from '../../paint/svg/markup.ts';
import type { PictureEncoder } from '../assets/encodePictures.ts';
import { pagePicture } from '../pages/pagePicture.ts';
import type { Scope } from '../scope.ts';
import type { WriteJob } from '../writer.ts';
import type { SiteFacts } from './headMarkup.ts';
import type { HtmlSettings } from './settings.ts';

/** Sizes of icons in px: what installing asks for (192, 512), and what some devices look for by another name (180). */
const SIZES = [192, 512] as const;
export const TOUCH_ICON = { path: 'icons/touch-180.png', size: 180 };
export const MANIFEST_FILE = 'app.webmanifest';

export const themeOf = ({ theme, ground }: HtmlSettings): string => theme || ground;

interface Icon {
  path: string;
  mediaType: string;
  bytes: Uint8Array;
  size: number;
  purpose: 'any' | 'maskable';
}

/** Icons from a picture of the document, whole and on the theme colour, or from the top of the first page. */
export async function iconsOf(job: WriteJob<HtmlSettings>, scope: Scope, encoder: PictureEncoder): Promise<Icon[]> {
  const { folio, settings, pictures } = job;
  const given = folio.head.media[settings.icon];
  const [largest] = [...SIZES].reverse();
  const source = given?.mediaType.startsWith('image/')
    ? await pictures.encode(await job.media(given.id), { maxWidth: largest!, quality: 90, format: 'png' })
    : scope.pages[0] && (await pagePicture(job, encoder, scope.pages[0], scope, largest!));
  if (!source) return [];
  const data = `data:${source.mediaType};base64,${Buffer.from(source.bytes).toString('base64')}`;
  // Icons that are cut to the device's own shape keep what matters within the middle 80 % (W3C Web Application Manifest).
  const drawn = (size: number, inset: number): Promise<Uint8Array> => {
    const at = size * inset;
    const room = size - 2 * at;
    return pictures.drawSvg(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}"><rect width="${size}" height="${size}" fill="${escape(themeOf(settings))}"/><image x="${at}" y="${at}" width="${room}" height="${room}" preserveAspectRatio="${given ? 'xMidYMid meet' : 'xMidYMin slice'}" href="${data}"/></svg>`,
      'picture',
    );
  };
  const icon = async (path: string, size: number, purpose: Icon['purpose'], inset: number): Promise<Icon> => ({
    path,
    mediaType: 'image/png',
    bytes: await drawn(size, inset),
    size,
    purpose,
  });
  return [
    ...(await Promise.all(SIZES.map((size) => icon(`icons/any-${size}.png`, size, 'any', 0)))),
    await icon('icons/maskable-512.png', 512, 'maskable', given ? 0.1 : 0),
    await icon(TOUCH_ICON.path, TOUCH_ICON.size, 'any', 0),
  ];
}

/** What a device is told of the edition (W3C Web Application Manifest). */
export function manifestOf(settings: HtmlSettings, facts: SiteFacts, icons: readonly Icon[]): string {
  return JSON.stringify(
    {
      id: './',
      name: facts.title,
      short_name: settings.appName.trim() || shortOf(facts.title),
      ...(facts.description && { description: facts.description }),
      lang: facts.language,
      start_url: './index.html',
      scope: './',
      display: settings.window,
      theme_color: themeOf(settings),
      background_color: settings.ground,
      icons: icons
        .filter((i) => i.path !== TOUCH_ICON.path)
        .map((i) => ({ src: i.path, sizes: `${i.size}x${i.size}`, type: i.mediaType, purpose: i.purpose })),
    },
    null,
    1,
  );
}

/** As many whole words of a title as are seen under an icon. */
function shortOf(title: string): string {
  let out = '';
  for (const word of title.split(/\s+/)) {
    if (out && `${out} ${word}`.length > 14) break;
    out = out ? `${out} ${word}` : word;
  }
  return out.slice(0, 30);
}
