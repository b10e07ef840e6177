import { seeded } from '../art/random.ts';

/** A world as it is told on its panel. */
export interface World {
  id: string;
  name: string;
  line: string;
  facts: readonly [what: string, value: string][];
  text: string;
  alt: string;
  /** Colours of its sky, its light side and its dark side. */
  colours: [sky: string, light: string, dark: string];
}

/** Five worlds that nobody has been to: made up for an exhibition in the hut. */
export const WORLDS: readonly World[] = [
  {
    id: 'ember',
    name: 'Ember',
    line: 'Where it rains glass, sideways',
    facts: [
      ['A day', '31 hours'],
      ['A year', '4 days'],
      ['By day', '1,100 °C'],
    ],
    text: 'So close to its star that a year is over by the weekend. Drops of molten rock are blown round and round it by a wind that has never once died down.',
    alt: 'A dark world with glowing cracks, a large orange star behind it.',
    colours: ['#2A0E12', '#E2673A', '#4A1A1C'],
  },
  {
    id: 'mirror',
    name: 'Mirror',
    line: 'One sea, no shore',
    facts: [
      ['Depth of the sea', '140 km'],
      ['Highest wave', '90 m'],
      ['Land', 'none'],
    ],
    text: 'A world of water from pole to pole. At the bottom of the sea the pressure turns the water to ice, so that the floor is frozen and the top is warm enough for a swim.',
    alt: 'A blue world, smooth and bright, with white swirls of cloud.',
    colours: ['#0B1B3A', '#5FB3D9', '#123A66'],
  },
  {
    id: 'shepherd',
    name: 'Shepherd',
    line: 'A hundred and twelve moons',
    facts: [
      ['Moons', '112'],
      ['Width of the rings', '480,000 km'],
      ['Thickness', '30 m'],
    ],
    text: 'Its rings are wider than the distance from here to the moon and thinner than the mill is high. Small moons run along their edges and keep them in order, like dogs.',
    alt: 'A pale banded world with wide rings and a string of small moons.',
    colours: ['#17183A', '#E9D3A4', '#7A6140'],
  },
  {
    id: 'twilight',
    name: 'Evenfall',
    line: 'Always ten minutes after sunset',
    facts: [
      ['A day', 'never ends'],
      ['A night', 'never ends'],
      ['Dusk', '600 km wide'],
    ],
    text: 'It keeps the same face to its small red star. One half is desert and the other ice, and between the two runs a ring of meadows on which it is for ever evening.',
    alt: 'A world half red desert and half white ice, with a green ring between the halves.',
    colours: ['#2B1030', '#C9745E', '#5A2A36'],
  },
  {
    id: 'lantern',
    name: 'Lantern',
    line: 'The one that shines by itself',
    facts: [
      ['Distance', '41 light years'],
      ['Sun', 'none'],
      ['Found by', 'a cloudy night'],
    ],
    text: 'It has lost its star and drifts alone through the dark. Its air glows faintly, green and violet, from end to end: northern lights that have forgotten about the north.',
    alt: 'A dark world wrapped in green and violet lights, among stars.',
    colours: ['#05070F', '#5BE0A8', '#2A1E4A'],
  },
];

/** A panel's picture: the world large on the right, its sky all over. */
export function worldArt(world: World, w: number, h: number): string {
  const random = seeded(world.id.length * 97 + world.name.charCodeAt(0));
  const [sky, light, dark] = world.colours;
  // The rings of one reach far beyond it.
  const [cx, cy, r] = world.id === 'shepherd' ? [w * 0.75, h * 0.52, h * 0.19] : [w * 0.7, h * 0.54, h * 0.34];
  let out =
    `<defs><radialGradient id="s" cx="0.7" cy="0.5" r="0.9"><stop offset="0" stop-color="${light}" stop-opacity=".35"/><stop offset="1" stop-color="${sky}" stop-opacity="0"/></radialGradient>` +
    `<radialGradient id="b" cx="0.32" cy="0.3" r="0.85"><stop offset="0" stop-color="${light}"/><stop offset=".75" stop-color="${dark}"/><stop offset="1" stop-color="${sky}"/></radialGradient><clipPath id="d"><circle cx="${cx}" cy="${cy}" r="${r}"/></clipPath></defs>` +
    `<rect width="${w}" height="${h}" fill="${sky}"/><rect width="${w}" height="${h}" fill="url(#s)"/>`;
  for (let i = 0; i < 260; i++)
    out += `<circle cx="${(random() * w).toFixed(0)}" cy="${(random() * h).toFixed(0)}" r="${(0.6 + random() ** 4 * 3).toFixed(1)}" fill="#fff" opacity="${(0.25 + random() * 0.6).toFixed(2)}"/>`;
  if (world.id === 'ember')
    out += `<circle cx="${w * 0.93}" cy="${h * 0.12}" r="${h * 0.26}" fill="#F6A04A"/><circle cx="${w * 0.93}" cy="${h * 0.12}" r="${h * 0.34}" fill="#F6A04A" opacity=".25"/>`;
  if (world.id === 'shepherd')
    out += `<g transform="translate(${cx} ${cy}) rotate(-16)"><path d="M${-r * 2.1} 0A${r * 2.1} ${r * 0.5} 0 0 1 ${r * 2.1} 0" fill="none" stroke="#CDB98A" stroke-width="${r * 0.34}" opacity=".8"/></g>`;
  let surface = `<circle cx="${cx}" cy="${cy}" r="${r}" fill="url(#b)"/>`;
  if (world.id === 'ember')
    for (let i = 0; i < 26; i++) {
      let [x, y] = [cx + (random() - 0.5) * 2 * r, cy + (random() - 0.5) * 2 * r];
      let d = `M${x.toFixed(0)} ${y.toFixed(0)}`;
      for (let k = 0; k < 5; k++) d += `L${(x += (random() - 0.5) * r * 0.4).toFixed(0)} ${(y += (random() - 0.5) * r * 0.4).toFixed(0)}`;
      surface += `<path d="${d}" fill="none" stroke="#FFC06B" stroke-width="${(1 + random() * 4).toFixed(1)}" opacity=".8"/>`;
    }
  if (world.id === 'mirror')
    for (let i = 0; i < 22; i++) {
      const y = cy + (random() - 0.5) * 1.9 * r;
      surface += `<path d="M${(cx - r * random()).toFixed(0)} ${y.toFixed(0)}q${(r * 0.4).toFixed(0)} ${((random() - 0.5) * r * 0.3).toFixed(0)} ${(r * 0.9).toFixed(0)} ${((random() - 0.5) * r * 0.2).toFixed(0)}" fill="none" stroke="#fff" stroke-width="${(2 + random() * 9).toFixed(1)}" stroke-linecap="round" opacity=".5"/>`;
    }
  if (world.id === 'shepherd')
    for (let i = 0; i < 9; i++)
      surface += `<path d="M${cx - r} ${(cy - r + (i + 0.5) * r * 0.22).toFixed(0)}q${r} ${(r * 0.14).toFixed(0)} ${2 * r} 0" fill="none" stroke="${i % 2 ? '#B08C5A' : '#F4E6C4'}" stroke-width="${(r * 0.09).toFixed(0)}" opacity=".6"/>`;
  if (world.id === 'twilight')
    surface += `<path d="M${cx} ${cy - r}A${r * 0.3} ${r} 0 0 1 ${cx} ${cy + r}A${r} ${r} 0 0 0 ${cx} ${cy - r}Z" fill="#DCE7F2"/><path d="M${cx} ${cy - r}A${r * 0.3} ${r} 0 0 1 ${cx} ${cy + r}" fill="none" stroke="#6E9A5A" stroke-width="${(r * 0.12).toFixed(0)}"/>`;
  if (world.id === 'lantern')
    for (let i = 0; i < 12; i++) {
      const y = cy - r * 0.9 + i * r * 0.16;
      surface += `<path d="M${cx - r} ${y.toFixed(0)}q${(r * 0.5).toFixed(0)} ${((random() - 0.5) * r * 0.5).toFixed(0)} ${r} 0t${r} 0" fill="none" stroke="${i % 3 ? '#5BE0A8' : '#A06BE0'}" stroke-width="${(4 + random() * 12).toFixed(1)}" opacity=".45"/>`;
    }
  out += `<g clip-path="url(#d)">${surface}</g>`;
  if (world.id === 'shepherd') {
    out += `<g transform="translate(${cx} ${cy}) rotate(-16)"><path d="M${-r * 2.1} 0A${r * 2.1} ${r * 0.5} 0 0 0 ${r * 2.1} 0" fill="none" stroke="#E3D2A6" stroke-width="${r * 0.34}" opacity=".9"/></g>`;
    for (let i = 0; i < 7; i++)
      out += `<circle cx="${(cx - r * 2.2 + i * r * 0.72).toFixed(0)}" cy="${(cy + r * 1.05 - i * r * 0.21).toFixed(0)}" r="${3 + (i % 3) * 2}" fill="#fff"/>`;
  }
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}">${out}</svg>`;
}
