import type { Reading } from '../program.ts';
import type { PagesOnScreen } from '../pages.ts';
import type { Surroundings } from '../surroundings.ts';
import { playMeasuring } from './measure.ts';
import { keepOffline } from './offline.ts';
import { isPlain } from './plain.ts';
import { playSearch } from './search.ts';

/** Steps of larger and smaller, and how far they go. */
const STEP = 1.25;
const [SMALLEST, LARGEST] = [0.4, 5];

/** Brings the bar to life, follows the page in view in the address, and tells how far the reader has come. */
export function playReading(s: Surroundings, reading: Reading, screen: PagesOnScreen): void {
  const { doc, program } = s;
  const root = doc.documentElement;
  const pages = program.pages.flatMap((id) => doc.getElementById(id) ?? []);
  const part = <E extends HTMLElement>(does: string): E | null => doc.querySelector<E>(`[data-do="${does}"]`);
  const press = (does: string, run: () => void): void => part(does)?.addEventListener('click', run);

  press('back', () => screen.go('previous'));
  press('next', () => screen.go('next'));
  const slider = part<HTMLInputElement>('slider');
  slider?.addEventListener('change', () => goTo(slider.valueAsNumber - 1));
  const goTo = (page: number): void => {
    const here = page - reading.before;
    if (pages[here]) screen.jump(here);
    else if (reading.pages?.[page] !== undefined) location.href = reading.pages[page];
  };

  const number = part('number');
  const progress = doc.querySelector<HTMLElement>('.progress');
  let isFirst = true;
  screen.onShown((page) => {
    const at = reading.before + page;
    const said = reading.words.page.replace('{n}', String(at + 1)).replace('{all}', String(reading.count));
    if (number) number.textContent = said;
    if (slider) {
      slider.value = String(at + 1);
      slider.setAttribute('aria-valuetext', said);
    }
    // On the line itself: told to the root, every element would have to be looked at anew.
    progress?.style.setProperty('--read', String(reading.count > 1 ? at / (reading.count - 1) : 1));
    // The address follows the page, so that it can be kept and handed on; where one comes to is in it already.
    if (!isFirst) history.replaceState(history.state, '', `#${pages[page]!.id}`);
    isFirst = false;
  });

  let more = 1;
  const enlarge = (by: number) => (): void => {
    more = Math.min(LARGEST, Math.max(SMALLEST, more * by));
    const middle = doc.elementFromPoint(innerWidth / 2, innerHeight / 2)?.closest('.page');
    root.style.setProperty('--more', String(more));
    middle?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  };
  press('larger', enlarge(STEP));
  press('smaller', enlarge(1 / STEP));

  const sound = part('sound');
  sound?.addEventListener('click', () => {
    const isOn = sound.getAttribute('aria-pressed') !== 'true';
    sound.setAttribute('aria-pressed', String(isOn));
    // What plays by itself is silent anyway, as browsers ask.
    for (const media of doc.querySelectorAll<HTMLMediaElement>('video,audio')) media.muted = !isOn || media.autoplay;
  });

  // Over a connection that is not secure, browsers neither share nor copy.
  const shares = part('share');
  if (shares) shares.hidden = typeof navigator.share !== 'function' && !navigator.clipboard;
  press('share', () => {
    const url = reading.share?.address ?? (reading.address ? new URL(location.hash, reading.address).href : location.href);
    const told = doc.querySelector('.bar .told');
    if (typeof navigator.share === 'function') void share(doc.title, url, reading.share?.picture);
    else
      void navigator.clipboard?.writeText(url).then(
        () => told && (told.textContent = reading.words.copied),
        () => undefined,
      );
  });
  const full = part('fullScreen');
  if (full) full.hidden = !doc.fullscreenEnabled;
  full?.addEventListener('click', () => void (doc.fullscreenElement ? doc.exitFullscreen() : root.requestFullscreen()));

  // What was opened is put away by whatever is pressed beside it.
  doc.addEventListener('pointerdown', (e) => {
    const target = e.target as Element;
    for (const list of doc.querySelectorAll<HTMLDetailsElement>('.contents[open]')) if (!list.contains(target)) list.open = false;
    const found = doc.querySelector<HTMLElement>('.found');
    if (found && !found.parentElement!.contains(target)) found.hidden = true;
  });
  for (const list of doc.querySelectorAll<HTMLDetailsElement>('.contents')) playList(list);
  function playList(list: HTMLDetailsElement): void {
    list.addEventListener('toggle', () => {
      if (list.open) for (const other of doc.querySelectorAll<HTMLDetailsElement>('.contents[open]')) other.open = other === list;
    });
    list.addEventListener('click', (e) => {
      const link = (e.target as Element).closest('a');
      if (!link) return;
      list.open = false;
      const page = link.hash && link.pathname === location.pathname ? doc.getElementById(link.hash.slice(1))?.closest('.page') : null;
      const at = page ? pages.indexOf(page as HTMLElement) : -1;
      if (at < 0) return;
      e.preventDefault();
      history.pushState(null, '', link.hash);
      screen.jump(at);
    });
    doc.addEventListener('keydown', (e) => {
      if (e.key !== 'Escape' || !list.open) return;
      list.open = false;
      list.querySelector('summary')?.focus();
    });
  }

  const search = part<HTMLInputElement>('search');
  if (search) playSearch(search, pages, reading, screen);
  if (reading.offline !== undefined) keepOffline(reading.offline);
  if (reading.measuring && !isPlain(doc)) playMeasuring(s, reading.measuring, reading.before, screen);
  if (doc.readyState === 'complete') root.classList.add('loaded');
  else addEventListener('load', () => root.classList.add('loaded'));
}

/** The device's own sharing, with a picture where it takes one. A reader who changes their mind has done nothing wrong. */
async function share(title: string, url: string, picture: string | undefined): Promise<void> {
  const data: ShareData = { title, url };
  try {
    if (picture !== undefined && typeof navigator.canShare === 'function') {
      const blob = await (await fetch(picture)).blob();
      const files = [new File([blob], picture.split('/').pop()!, { type: blob.type })];
      if (navigator.canShare({ ...data, files })) data.files = files;
    }
  } catch {
    // From a folder no picture can be fetched; the address alone is handed on.
  }
  await navigator.share(data).catch(() => undefined);
}
