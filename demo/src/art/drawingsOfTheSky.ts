import { AMBER, dot, fill, GREEN, head, INK, line, NIGHT, PALE, place, ring, sheet, WARM } from './drawing.ts';
import type { Lettering } from './lettering.ts';
import { seeded } from './random.ts';

type Dots = readonly (readonly [number, number, number])[];
const field = (id: string, r: number, body: string): string =>
  dot(0, 0, r, NIGHT) +
  `<clipPath id="${id}"><circle r="${r - 2}"/></clipPath><g clip-path="url(#${id})">${body}</g>` +
  ring(0, 0, r, INK, 5);
const stars = (list: Dots, scale: number): string => list.map(([x, y, r]) => dot(x * scale, y * scale, r, '#fff')).join('');

function scattered(seed: number, count: number, spread: number, size: number): Dots {
  const random = seeded(seed);
  return Array.from({ length: count }, () => {
    const [a, d] = [random() * 6.283, random() ** 0.8 * spread];
    return [Math.cos(a) * d, Math.sin(a) * d, size * (0.4 + random() ** 2)] as const;
  });
}

/** How the faintest light the eye can see falls with minutes in the dark. */
export function adaptation(letter: Lettering): string {
  const [x0, y0, w, h] = [110, 400, 830, 340];
  const x = (minutes: number): number => x0 + (minutes / 35) * w;
  // Two falling exponentials, day cells and night cells; what is lower is what one sees by.
  const day = (m: number): number => 0.46 + 0.44 * Math.exp(-m / 2.2);
  const night = (m: number): number => 0.06 + 1.1 * Math.exp(-m / 7.4);
  const y = (v: number): number => y0 - v * h;
  const points = (f: (m: number) => number, from: number, to: number): string =>
    Array.from({ length: 60 }, (_, i) => from + ((to - from) * i) / 59)
      .map((m, i) => `${i ? 'L' : 'M'}${x(m).toFixed(1)} ${y(f(m)).toFixed(1)}`)
      .join('');
  const bend = 7.6;
  return sheet(
    500,
    line(`M${x0} ${y0 - h - 10}V${y0}H${x0 + w + 20}`) +
      [0, 10, 20, 30].map((m) => line(`M${x(m)} ${y0}v10`, INK, 3) + letter(String(m), x(m), y0 + 42, 26)).join('') +
      letter('minutes in the dark', x(17.5), y0 + 84, 26) +
      place(52, y0 - h / 2, letter('faintest light', 0, 0, 26), -90) +
      line(points(day, 0, 35), AMBER, 3, ' stroke-dasharray="3 13"') +
      line(points(day, 0, bend), AMBER, 8) +
      line(points(night, bend, 35), GREEN, 8) +
      letter('day cells', x(20), y(0.5) - 4, 26, { fill: AMBER }) +
      letter('night cells', x(17), y(0.26), 26, { fill: GREEN }),
  );
}

/** The long telescope with its parts lettered. */
export function tube(letter: Lettering): string {
  const mark = (t: string, x: number, y: number): string => ring(x, y, 26, GREEN, 4, '#fff') + letter(t, x, y + 11, 30, { fill: GREEN });
  return sheet(
    620,
    fill('M0 560H1000V620H0Z', PALE) +
      line('M0 560H1000', INK, 4) +
      fill('M440 560L470 330H560L590 560Z', '#C9CFC6', ` stroke="${INK}" stroke-width="4"`) +
      place(
        515,
        300,
        fill('M-330 -40H250V40H-330Z', WARM, ` stroke="${INK}" stroke-width="5"`) +
          fill('M250 -52H380V52H250Z', '#fff', ` stroke="${INK}" stroke-width="5"`) +
          line('M250 -52V52', INK, 10) +
          fill('M-390 -20H-330V20H-390Z', INK) +
          fill('M-420 -11H-390V11H-420Z', INK) +
          fill('M-250 -78H-60V-54H-250Z', '#fff', ` stroke="${INK}" stroke-width="4"`) +
          line('M-210 -54V-40M-100 -54V-40', INK, 5),
        -24,
      ) +
      dot(515, 312, 44, INK) +
      place(515, 312, line('M0 0L70 130', INK, 16) + dot(84, 156, 36, INK)) +
      dot(515, 312, 16, AMBER) +
      mark('A', 770, 140) +
      mark('B', 905, 150) +
      mark('C', 330, 268) +
      mark('D', 448, 238) +
      mark('E', 622, 330) +
      mark('F', 120, 520) +
      mark('G', 668, 478),
  );
}

/** One cluster at three powers. */
export function powers(letter: Lettering): string {
  const cluster = scattered(31, 46, 62, 4.2);
  const wide = scattered(77, 60, 150, 2.4);
  return sheet(
    370,
    [1, 1.67, 3.33]
      .map(
        (zoom, i) =>
          place(170 + i * 330, 160, field(`p${i}`, 146, stars(wide, zoom) + stars(cluster, zoom * 0.8))) +
          letter(`${[60, 100, 200][i]} times`, 170 + i * 330, 352, 32),
      )
      .join(''),
  );
}

/** Why the day by the stars is shorter. */
export function sidereal(letter: Lettering): string {
  const [sx, sy] = [180, 300];
  const earth = (x: number, y: number, turn: number): string =>
    ring(x, y, 42, INK, 5, PALE) + place(x, y, line('M0 0L42 0', AMBER, 8) + dot(42, 0, 10, AMBER), turn);
  return sheet(
    500,
    dot(sx, sy, 64, '#F0B36A') +
      letter('Sun', sx, sy + 12, 30) +
      line('M640 470A490 490 0 0 0 600 60', '#C4CBD6', 4, ' stroke-dasharray="10 12"') +
      line('M250 300H622', INK, 3) +
      line('M244 292L560 164', INK, 3) +
      earth(670, 300, 180) +
      earth(640, 136, 180) +
      line('M620 136H300', GREEN, 4, ' stroke-dasharray="12 10"') +
      line('M622 300H470', GREEN, 4, ' stroke-dasharray="12 10"') +
      head(286, 136, 180, GREEN, 22) +
      letter('to the far star', 400, 116, 28, { fill: GREEN }) +
      letter('first day', 740, 310, 28, { anchor: 'start' }) +
      letter('one turn later', 710, 146, 28, { anchor: 'start' }) +
      head(658, 216, -104, INK, 20) +
      line('M672 248Q668 232 661 222', INK, 4),
  );
}

const FIGURES: readonly [string, readonly (readonly [number, number])[]][] = [
  [
    'Heron',
    [
      [150, 470],
      [160, 390],
      [140, 320],
      [180, 260],
      [240, 236],
      [268, 250],
    ],
  ],
  [
    'Lanterns',
    [
      [340, 380],
      [410, 366],
    ],
  ],
  [
    'Plough Horse',
    [
      [600, 120],
      [650, 90],
      [720, 100],
      [760, 140],
      [740, 190],
      [690, 180],
      [650, 90],
    ],
  ],
  [
    'Ferryman',
    [
      [300, 150],
      [330, 100],
      [380, 70],
      [330, 100],
      [390, 140],
    ],
  ],
  [
    'Spindle',
    [
      [860, 420],
      [880, 350],
      [910, 280],
      [890, 350],
      [930, 380],
    ],
  ],
  [
    'Lantern Field',
    [
      [480, 300],
      [580, 280],
      [596, 370],
      [494, 390],
      [480, 300],
    ],
  ],
  [
    'Kettle',
    [
      [700, 300],
      [750, 280],
      [790, 310],
      [770, 360],
      [716, 356],
      [700, 300],
    ],
  ],
  [
    'Gate',
    [
      [560, 470],
      [560, 430],
      [640, 430],
      [640, 470],
    ],
  ],
  [
    'Ladder',
    [
      [90, 180],
      [120, 120],
      [150, 180],
      [180, 120],
    ],
  ],
];

/** The nine figures of the spring sky. */
export function figures(letter: Lettering): string {
  const random = seeded(64);
  let body = fill('M0 0H1000V540H0Z', NIGHT);
  for (let i = 0; i < 220; i++)
    body += dot(random() * 1000, random() * 540, 0.8 + random() ** 4 * 3, '#fff', ` opacity="${(0.35 + random() * 0.5).toFixed(2)}"`);
  for (const [name, points] of FIGURES) {
    body += line(points.map(([x, y], i) => `${i ? 'L' : 'M'}${x} ${y}`).join(''), '#F0B36A', 3);
    points.forEach(([x, y], i) => (body += dot(x, y, 4.5 + ((i * 5) % 4), '#FFF3D6')));
    const [cx, low] = [points.reduce((s, p) => s + p[0], 0) / points.length, Math.max(...points.map((p) => p[1]))];
    body += letter(name, cx, low + 36, 24, { fill: '#DCE5FF' });
  }
  return sheet(540, body);
}

/** Five steps through the field of a finder. */
export function hopping(letter: Lettering): string {
  const steps: readonly (readonly [number, number])[] = [
    [130, 330],
    [300, 260],
    [450, 310],
    [600, 220],
    [760, 180],
  ];
  const random = seeded(19);
  let body = fill('M0 0H1000V440H0Z', '#F4F2EA');
  for (let i = 0; i < 90; i++) body += dot(random() * 1000, random() * 440, 1.5 + random() ** 3 * 4, INK);
  body += line(steps.map(([x, y], i) => `${i ? 'L' : 'M'}${x} ${y}`).join(''), AMBER, 4, ' stroke-dasharray="4 12"');
  steps.forEach(([x, y], i) => {
    body += ring(x, y, 82, GREEN, 3) + dot(x, y, i === 0 ? 13 : 7, INK) + letter(String(i + 1), x + 56, y - 64, 30, { fill: GREEN });
  });
  return sheet(440, body + place(850, 150, stars(scattered(3, 26, 26, 3), 1).replaceAll('#fff', INK) + ring(0, 0, 34, INK, 2)));
}

/** Eight phases of the moon with the age in days. */
export function phases(letter: Lettering): string {
  let out = '';
  for (let i = 0; i < 8; i++) {
    const [cx, cy, r] = [80 + i * 120, 90, 50];
    const age = [2, 5, 7, 11, 15, 19, 22, 26][i]!;
    const phase = age / 29.53;
    const k = Math.cos(phase * 2 * Math.PI);
    const waxing = phase <= 0.5;
    const terminator = waxing ? (k > 0 ? 0 : 1) : k > 0 ? 1 : 0;
    out +=
      dot(cx, cy, r, NIGHT) +
      fill(
        `M${cx} ${cy - r}A${r} ${r} 0 0 ${waxing ? 1 : 0} ${cx} ${cy + r}A${(Math.abs(k) * r).toFixed(1)} ${r} 0 0 ${terminator} ${cx} ${cy - r}Z`,
        '#F3E8C8',
      ) +
      ring(cx, cy, r, INK, 3) +
      letter(String(age), cx, 190, 32);
  }
  return sheet(210, out);
}

/** What four planets look like in the eyepiece. */
export function planets(): string {
  const crescent = dot(0, 0, 62, '#2A3656') + fill('M0 -62A62 62 0 0 1 0 62A92 92 0 0 0 0 -62Z', '#FBF3DC');
  const banded =
    `<clipPath id="gb"><ellipse rx="92" ry="86"/></clipPath><g clip-path="url(#gb)"><rect x="-95" y="-90" width="190" height="180" fill="#EAD9B8"/>` +
    [
      [-52, 14],
      [-20, 24],
      [22, 20],
      [54, 10],
    ]
      .map(([y, h]) => fill(`M-95 ${y}Q0 ${y! + 8} 95 ${y}V${y! + h!}Q0 ${y! + h! + 8} -95 ${y! + h!}Z`, '#B98D5E'))
      .join('') +
    `</g>`;
  const ringed =
    `<ellipse rx="128" ry="36" fill="none" stroke="#D9C08C" stroke-width="18"/>` +
    `<clipPath id="rb"><rect x="-130" y="-130" width="260" height="122"/></clipPath>` +
    `<circle r="56" fill="#EAD9B8"/><path d="M-128 0A128 36 0 0 0 128 0" fill="none" stroke="#D9C08C" stroke-width="18"/><path d="M-100 3A106 27 0 0 0 100 3" fill="none" stroke="${NIGHT}" stroke-width="3"/>`;
  const red =
    dot(0, 0, 40, '#D98A5B') +
    fill('M-20 -34A40 40 0 0 1 20 -34Q0 -24 -20 -34Z', '#fff') +
    fill('M-30 6Q0 -8 26 10Q8 24 -12 18Z', '#9A5638');
  return sheet(
    330,
    [crescent, banded, ringed, red]
      .map((body, i) =>
        place(
          140 + i * 240,
          165,
          dot(0, 0, 0) +
            `<g>${fill('M-116 -150H116V150H-116Z', NIGHT)}${i === 2 ? `<g transform="rotate(-18) scale(.82)">${body}</g>` : `<g transform="rotate(-12)">${body}</g>`}</g>`,
        ),
      )
      .join(''),
  );
}

/** The four moons of the giant on nine evenings; orbits as sines with the periods of the real ones' proportions 1 : 2 : 4.05 : 9.4. */
export function moons(): string {
  let out = '';
  const orbits: readonly (readonly [number, number, string])[] = [
    [95, 1.77, INK],
    [150, 3.55, INK],
    [240, 7.15, INK],
    [420, 16.69, AMBER],
  ];
  for (let day = 0; day < 9; day++) {
    const y = 34 + day * 46;
    out += line(`M40 ${y}H960`, '#DDE2DA', 2) + ring(500, y, 15, INK, 4, '#EAD9B8');
    orbits.forEach(([a, period, colour], i) => (out += dot(500 + a * Math.sin((day / period) * 6.283 + i * 1.3), y, 6.5, colour)));
  }
  return sheet(440, out);
}

/** A year of estimates of one star. */
export function curve(letter: Lettering): string {
  const [x0, y0, w, h] = [90, 380, 870, 330];
  const random = seeded(230);
  let out = line(`M${x0} ${y0 - h}V${y0}H${x0 + w}`);
  for (const m of [5, 6, 7, 8])
    out += line(`M${x0 - 10} ${y0 - ((8.3 - m) / 3.6) * h}h10`, INK, 3) + letter(String(m), x0 - 34, y0 - ((8.3 - m) / 3.6) * h + 9, 26);
  for (let d = 0; d < 365; d += 2 + Math.floor(random() * 5)) {
    if (d > 226 && d < 262) continue;
    // A steep rise and a slow fall, as such stars have.
    const phase = ((d + 60) % 230) / 230;
    const v = phase < 0.4 ? 0.5 - 0.5 * Math.cos((phase / 0.4) * Math.PI) : 0.5 + 0.5 * Math.cos(((phase - 0.4) / 0.6) * Math.PI);
    const magnitude = 7.9 - 2.8 * v + (random() - 0.5) * 0.26;
    out += dot(x0 + (d / 365) * w, y0 - ((8.3 - magnitude) / 3.6) * h, 6, GREEN);
  }
  for (const [i, m] of ['Jan', 'Apr', 'Jul', 'Oct'].entries()) out += letter(m, x0 + (i * w) / 4 + 40, y0 + 40, 26);
  return sheet(440, out);
}

/** A cluster, a ball of stars and a cloud, as a pencil has them. */
export function smudges(): string {
  const open = scattered(7, 40, 96, 6);
  const globe = seeded(41);
  let ball = '';
  for (let i = 0; i < 700; i++) {
    const [a, d] = [globe() * 6.283, globe() ** 2 * 100];
    ball += dot(Math.cos(a) * d, Math.sin(a) * d, 1 + globe() * 1.6, INK);
  }
  const glow =
    `<radialGradient id="gl"><stop offset="0" stop-color="${INK}" stop-opacity=".75"/><stop offset="1" stop-color="${INK}" stop-opacity="0"/></radialGradient>` +
    `<ellipse rx="110" ry="46" fill="url(#gl)" transform="rotate(24)"/><ellipse rx="52" ry="100" fill="url(#gl)" transform="rotate(-40)"/>` +
    dot(0, 0, 5) +
    dot(18, -10, 4);
  return sheet(
    310,
    [open.map(([x, y, r]) => dot(x, y, r, INK)).join(''), ball, glow]
      .map((body, i) => place(170 + i * 330, 155, ring(0, 0, 140, INK, 3) + body))
      .join(''),
  );
}

/** A page of the log, ruled and filled by several hands. */
export function logPage(letter: Lettering): string {
  const random = seeded(3);
  const columns = [60, 170, 280, 370, 520, 820, 890, 950];
  let out = fill('M40 20H960V500H40Z', '#FBF7EC', ` stroke="${INK}" stroke-width="4"`);
  for (const x of columns.slice(1, -1)) out += line(`M${x} 20V500`, '#B9B39F', 2);
  ['Date', 'Sky', 'Time', 'With', 'What was seen', 'By', ''].forEach((t, i) => {
    out += letter(t, (columns[i]! + columns[i + 1]!) / 2, 58, 22);
  });
  out += line('M40 76H960', INK, 3);
  for (let row = 0; row < 10; row++) {
    const y = 112 + row * 40;
    const hand = [INK, '#2B3F77', '#4A3A2A'][row % 3]!;
    columns.slice(0, -2).forEach((x, i) => {
      const end = x + 14 + (columns[i + 1]! - x - 34) * (0.5 + random() * 0.5);
      let d = `M${x + 14} ${y}`;
      for (let at = x + 22; at < end; at += 8) d += `q4 ${(-14 * random()).toFixed(1)} 8 ${(random() * 4 - 2).toFixed(1)}`;
      out += line(d, hand, 2.4);
    });
    if (row === 4) out += line(`M534 ${y - 5}H760`, '#A83E22', 3);
  }
  return sheet(520, out);
}
