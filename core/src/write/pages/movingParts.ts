import type { Field, Item, Media } from '../../folio/items.ts';
import { playedFile } from '../../folio/playedFile.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { isAddressOfWeb } from '../../folio/address.ts';
import { LAZY } from '../../paint/html/paintItem.ts';
import { attrs, escape } from '../../paint/svg/markup.ts';
import { fieldNames } from '../../motion/fieldNames.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';
import { playedMarkup } from '../reflow/playedMarkup.ts';
import { frameMarkup } from './frame.ts';
import { areaStyle, saidOf } from './linkArea.ts';
import type { HtmlPageContext } from './paintPage.ts';

const ALIVE = new Set<Item['kind']>(['media', 'switcher', 'veil', 'embed', 'field']);

/** Whether an item does something itself, and says so by its own elements. */
export const isAlive = (item: Item): boolean => ALIVE.has(item.kind);

/** What an item that is alive holds. Empty for all others. */
export function movingPart(item: Item, c: HtmlPageContext): string {
  switch (item.kind) {
    case 'media':
      return filmOrSound(item, c);
    case 'embed': {
      const poster = item.poster === undefined ? '' : posterPicture(c.source(item.poster).src, item.alt ?? '', c);
      const frame = c.frames.get(item.id);
      if (frame) return `<div class="c">${poster && poster.replace(/^<div class="c">|<\/div>$/g, '')}${frameMarkup(item, frame)}</div>`;
      const { source } = item;
      return poster && source.from === 'address' && isAddressOfWeb(source.href)
        ? `<a${attrs({ href: source.href.trim() })}>${poster}</a>`
        : poster;
    }
    case 'field':
      return control(item, fieldNames(c.folio).get(item.id) ?? item.fieldName);
    default:
      return '';
  }
}

const posterPicture = (src: string, alt: string, c: HtmlPageContext): string =>
  `<div class="c"><img${attrs({ src, alt, style: 'left:0;top:0;width:100%;height:100%;object-fit:cover', ...(c.lazy && LAZY) })}/></div>`;

function filmOrSound(item: Media, c: HtmlPageContext): string {
  const file = playedFile(c.folio, item);
  const src = item.media === null ? undefined : c.mediaFile(item.media);
  const poster = item.poster === undefined ? undefined : c.source(item.poster).src;
  if (!file || !src) return poster === undefined ? '' : posterPicture(poster, item.alt ?? '', c);
  const captions = item.captions === undefined ? undefined : c.mediaFile(item.captions);
  const { element, said } = playedMarkup(item, file, { src, poster, captions, language: c.language });
  const still = poster === undefined || file.mediaType.startsWith('video/') ? '' : posterPicture(poster, '', c);
  return `<div class="c">${still}${element}</div>${said}`;
}

/** A field as the form control of HTML that it is; what is drawn below it is what paper shows. */
function control(item: Field, name: string): string {
  const { control: k, id, label } = item;
  const common = {
    class: 'f',
    'data-field': id,
    name,
    'aria-label': label,
    title: label,
    required: item.required ? '' : undefined,
    tabindex: item.tabOrder,
  };
  const ticked = (value: string, on: boolean): Record<string, string | number | undefined> => ({
    ...common,
    class: item.onLook === undefined ? 'f' : 'f looks',
    value,
    checked: on ? '' : undefined,
    'data-on': item.onLook,
    'data-off': item.offLook,
  });
  switch (k.type) {
    case 'checkBox':
      return `<input${attrs({ type: 'checkbox', ...ticked(k.value, k.on) })}/>`;
    case 'radio':
      return `<input${attrs({ type: 'radio', ...ticked(k.value, k.on) })}/>`;
    case 'text':
      return k.lines === 'many'
        ? `<textarea${attrs(common)}>${escape(k.value)}</textarea>`
        : `<input${attrs({ type: 'text', ...common, value: k.value || undefined })}/>`;
    case 'signature':
      return `<input${attrs({ type: 'text', ...common, autocomplete: 'name' })}/>`;
    case 'date':
      return `<input${attrs({ type: 'date', ...common, value: k.value || undefined })}/>`;
    case 'choice':
      return `<select${attrs(common)}>${k.options.map((o) => `<option${attrs({ value: o.value, selected: o.value === k.value ? '' : undefined })}>${escape(o.label)}</option>`).join('')}</select>`;
    case 'button':
      return `<button${attrs({ type: 'button', class: 'f', 'data-field': id, name, title: label })}>${escape(k.caption)}</button>`;
  }
}

/**
 * An item that waits for a press and is no link. What is alive is pressed itself, since a button over it would keep its
 * controls from the reader; all else gets a button over it.
 */
export const isPressed = (item: Item, page: string, c: Pick<HtmlPageContext, 'scope'>): boolean =>
  Object.values(item.cues).some((cue) => cue.trigger.when === 'press') && !c.scope.targets.of(linkCueOf(item)?.destination, page);

/** Over an item that waits for a press: a button, which the program brings to light. Empty where there is none. */
export function pressArea(place: PagePlace, item: Item, z: number, c: HtmlPageContext): string {
  if (isAlive(item) || !isPressed(item, place.page.id, c)) return '';
  const style = areaStyle(place, item, z);
  return `<button${attrs({ type: 'button', class: 'i b', hidden: '', 'data-press': item.id, 'aria-label': saidOf(item, c) || item.name || item.id, style })}></button>`;
}
