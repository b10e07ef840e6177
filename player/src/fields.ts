import type { Surroundings } from './surroundings.ts';

type Control = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;
type Answers = Record<string, string | boolean>;

export interface FieldsOnPage {
  reset(): void;
  send(href: string): void;
}

const isTicked = (c: Control): c is HTMLInputElement => c instanceof HTMLInputElement && (c.type === 'checkbox' || c.type === 'radio');
const keyOf = (c: Control): string => (isTicked(c) ? `${c.name}=${c.value}` : c.name);

/** Keeps what a reader fills in on the device, shows drawn looks, and tells the conductor of changes. */
export function playFields(s: Surroundings): FieldsOnPage {
  const { doc, program } = s;
  const controls = [...doc.querySelectorAll<Control>('[data-field]')].filter((c) => 'name' in c);
  const place = `answers of ${program.name}`;
  const kept = (): Answers => {
    try {
      return JSON.parse(localStorage.getItem(place) ?? '{}') as Answers;
    } catch {
      // Some places (a file, a reader's strict settings) keep nothing: then answers last as long as the page.
      return {};
    }
  };
  const keep = (): void => {
    const answers: Answers = {};
    for (const c of controls) answers[keyOf(c)] = isTicked(c) ? c.checked : c.value;
    try {
      localStorage.setItem(place, JSON.stringify(answers));
    } catch {
      return;
    }
  };
  const draw = (c: Control): void => {
    if (!isTicked(c)) return;
    const { on, off } = c.dataset;
    if (on) for (const e of s.elementsOf(on)) e.classList.toggle('unseen', !c.checked);
    if (off) for (const e of s.elementsOf(off)) e.classList.toggle('unseen', c.checked);
  };
  const answers = kept();
  for (const c of controls) {
    const value = answers[keyOf(c)];
    if (isTicked(c)) {
      if (typeof value === 'boolean') c.checked = value;
    } else if (typeof value === 'string') c.value = value;
    draw(c);
    c.addEventListener('change', () => {
      controls.forEach(draw);
      keep();
      s.conductor.raise(c.dataset.field!, 'fieldChanged');
    });
  }
  doc.addEventListener('submit', (e) => e.preventDefault());
  return {
    reset() {
      for (const form of doc.forms) form.reset();
      controls.forEach(draw);
      keep();
    },
    send(href) {
      const bad = controls.find((c) => !c.checkValidity());
      if (bad) return void bad.reportValidity();
      const said = controls.filter((c) => c.name && (!isTicked(c) || c.checked)).map((c): [string, string] => [c.name, c.value]);
      if (/^mailto:/i.test(href)) {
        const body = said.map((p) => p.join(': ')).join('\r\n');
        location.href = `${href}${href.includes('?') ? '&' : '?'}body=${encodeURIComponent(body)}`;
        return;
      }
      const form = doc.createElement('form');
      form.method = 'post';
      form.action = href;
      form.hidden = true;
      for (const [name, value] of said) {
        const input = doc.createElement('input');
        [input.type, input.name, input.value] = ['hidden', name, value];
        form.append(input);
      }
      doc.body.append(form);
      form.submit();
    },
  };
}
