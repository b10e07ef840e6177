import type { Reading } from '../program.ts';
import type { PagesOnScreen } from '../pages.ts';

/** Words before and after what was found, in letters. */
const AROUND = 32;
const MOST = 200;

interface Place {
  page: number;
  node: Text;
  offset: number;
}

/** A page's letters, to search in and to show, with where each stands. */
interface Letters {
  text: string;
  shown: string;
  places: Place[];
}

/** Text that is read on a page: what is only seen, such as page numbers, is passed over. */
function* textsOf(page: Element): Generator<Text> {
  const walker = document.createTreeWalker(page, NodeFilter.SHOW_TEXT, (n) =>
    n.parentElement!.closest('[aria-hidden=true],.said,.script') ? NodeFilter.FILTER_REJECT : NodeFilter.FILTER_ACCEPT,
  );
  for (let node = walker.nextNode(); node; node = walker.nextNode()) yield node as Text;
}

/** A block's letters with where each stands; lines of one block are one text. */
function lettersOf(page: Element, at: number): Letters {
  let [text, shown] = ['', ''];
  const places: Place[] = [];
  let block: Element | null = null;
  for (const node of textsOf(page)) {
    const own = node.parentElement!.closest('p,h1,h2,h3,h4,h5,h6,li,td,th,blockquote') ?? page;
    const isNew = block !== null && own !== block;
    block = own;
    const data = isNew ? `\n${node.data}` : node.data;
    for (let offset = 0; offset < data.length; offset++) {
      const c = data[offset]!;
      // A word that is divided at a line's end is one word.
      if (c === '\u00ad') continue;
      const letter = /\s/.test(c) ? ' ' : c;
      // Letters that become two when they are made small would put all others out of their places.
      text += small(letter);
      shown += letter;
      places.push({ page: at, node, offset: Math.max(0, isNew ? offset - 1 : offset) });
    }
  }
  return { text, shown, places };
}

/** The text of a page in another file: its number, its address, its letters. */
type Elsewhere = [number: number, address: string, text: string];

/** Fetches the text of the edition's other files, once; as a script, since a page from a folder may fetch nothing else. */
function textElsewhere(file: string): Promise<Elsewhere[]> {
  return new Promise((resolve) => {
    const script = document.createElement('script');
    script.src = file;
    script.onload = () => resolve((window as unknown as { editionText?: Elsewhere[] }).editionText ?? []);
    script.onerror = () => resolve([]);
    document.head.append(script);
  });
}

const small = (text: string): string => Array.from(text, (c) => (c.toLowerCase().length === c.length ? c.toLowerCase() : c)).join('');

/** The search of the bar: what is found is listed with the words around it, and marked where it stands. */
export function playSearch(input: HTMLInputElement, pages: readonly Element[], reading: Reading, screen: PagesOnScreen): void {
  const box = input.parentElement!.querySelector<HTMLElement>('.found')!;
  const [told, list] = [box.querySelector('p')!, box.querySelector('ol')!];
  let letters: Letters[] | null = null;
  let elsewhere: Elsewhere[] | null = reading.index === undefined ? [] : null;
  const mark = (range: Range | null): void => {
    const marks = (CSS as unknown as { highlights?: Map<string, unknown> }).highlights;
    if (!marks) return;
    if (range) marks.set('found', new (window as unknown as { Highlight: new (r: Range) => unknown }).Highlight(range));
    else marks.delete('found');
  };
  const entry = (number: number, shown: string, at: number, length: number): HTMLAnchorElement => {
    const item = document.createElement('li');
    const link = document.createElement('a');
    const word = document.createElement('b');
    word.textContent = shown.slice(at, at + length);
    const before = shown.slice(Math.max(0, at - AROUND), at).replace(/^\S*\s/, '');
    const after = shown.slice(at + length, at + length + AROUND).replace(/\s\S*$/, '');
    link.append(`${number}  … ${before}`, word, `${after} …`);
    item.append(link);
    list.append(item);
    return link;
  };
  const find = (): void => {
    if (elsewhere === null) {
      elsewhere = [];
      void textElsewhere(reading.index!).then((all) => {
        // What is in this file is searched where it stands.
        elsewhere = all.filter(([n]) => n <= reading.before || n > reading.before + pages.length);
        find();
      });
    }
    const asked = input.value.trim().toLowerCase().replace(/\s+/g, ' ');
    box.hidden = asked.length < 2;
    list.replaceChildren();
    mark(null);
    if (box.hidden) return;
    letters ??= pages.map(lettersOf);
    let count = 0;
    const others = (isLater: boolean): void => {
      for (const [number, address, shown] of elsewhere!) {
        if (number > reading.before !== isLater) continue;
        const text = small(shown);
        for (let at = text.indexOf(asked); at >= 0; at = text.indexOf(asked, at + asked.length))
          // What is found there is marked by the browser (URL Fragment Text Directives).
          if (++count <= MOST)
            entry(number, shown, at, asked.length).href = `${address}:~:text=${encodeURIComponent(shown.slice(at, at + asked.length))}`;
      }
    };
    others(false);
    for (const { text, shown, places } of letters)
      for (let at = text.indexOf(asked); at >= 0; at = text.indexOf(asked, at + asked.length)) {
        count++;
        if (count > MOST) continue;
        const [first, last] = [places[at]!, places[at + asked.length - 1]!];
        const link = entry(reading.before + first.page + 1, shown, at, asked.length);
        link.href = `#${pages[first.page]!.id}`;
        link.addEventListener('click', (e) => {
          e.preventDefault();
          box.hidden = true;
          screen.jump(first.page);
          const range = document.createRange();
          range.setStart(first.node, first.offset);
          range.setEnd(last.node, Math.min(last.offset + 1, last.node.length));
          mark(range);
        });
      }
    others(true);
    told.textContent = count ? reading.words.found.replace('{n}', String(count)) : reading.words.nothing;
  };
  input.addEventListener('input', find);
  input.addEventListener('focus', () => box.hidden && input.value && find());
  input.addEventListener('keydown', (e) => {
    if (e.key !== 'Escape') return;
    input.value = '';
    find();
  });
}
