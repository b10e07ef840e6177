import { AMBER, dot, fill, GREEN, head, INK, line, NIGHT, PALE, place, ring, sheet, WARM } from './drawing.ts';
import type { Lettering } from './lettering.ts';
import { seeded } from './random.ts';

/** The drum with its dome, standing on y = 0, `r` wide to each side. */
const dome = (r: number): string =>
  fill(`M${-r} 0V${-r * 0.55}H${r}V0Z`, '#fff', ` stroke="${INK}" stroke-width="4"`) +
  fill(`M${-r * 1.06} ${-r * 0.55}A${r * 1.06} ${r * 1.06} 0 0 1 ${r * 1.06} ${-r * 0.55}Z`, PALE, ` stroke="${INK}" stroke-width="4"`) +
  fill(
    `M${r * 0.12} ${-r * 1.6}Q${r * 0.36} ${-r * 1.2} ${r * 0.4} ${-r * 0.58}H${r * 0.64}Q${r * 0.6} ${-r * 1.2} ${r * 0.34} ${-r * 1.54}Z`,
    AMBER,
  ) +
  line(`M${-r * 0.16} 0V${-r * 0.36}H${r * 0.1}V0`, INK, 4);

/** One person, `h` high, standing on y = 0, leaning by some degrees. */
const person = (h: number, lean = 0): string =>
  place(
    0,
    0,
    dot(0, -h * 0.86, h * 0.13) +
      fill(`M${-h * 0.14} ${-h * 0.7}H${h * 0.14}L${h * 0.2} 0H${h * 0.03}L0 ${-h * 0.3}L${-h * 0.03} 0H${-h * 0.2}Z`, INK),
    lean,
  );

const tree = (h: number): string =>
  line(`M0 0V${-h * 0.4}`, INK, 5) + fill(`M${-h * 0.3} ${-h * 0.3}L0 ${-h}L${h * 0.3} ${-h * 0.3}Z`, GREEN);

/** The hill with everything on it. */
export function hill(letter: Lettering): string {
  const random = seeded(5);
  let sky = '';
  for (let i = 0; i < 70; i++) sky += dot(random() * 1000, random() * 250, 1.5 + random() ** 3 * 4, '#fff');
  return sheet(
    560,
    fill('M0 0H1000V560H0Z', NIGHT) +
      sky +
      fill('M0 470C180 440 300 300 520 270C700 246 820 330 1000 400V560H0Z', PALE) +
      line('M0 470C180 440 300 300 520 270C700 246 820 330 1000 400', INK, 4) +
      place(520, 276, dome(82)) +
      line('M60 540C220 520 260 470 330 430S420 360 440 300', AMBER, 6, ' stroke-dasharray="16 14"') +
      place(700, 300, fill('M-44 0V-40L0 -66L44 -40V0Z', WARM, ` stroke="${INK}" stroke-width="4"`)) +
      line('M300 420V380M352 412V372M300 392L352 384', INK, 6) +
      place(620, 282, line('M-34 0V-14H34V0', INK, 5) + line('M-34 -14H34', INK, 5)) +
      place(168, 462, tree(66)) +
      place(880, 356, tree(80)) +
      place(936, 380, tree(58)) +
      [
        ['Dome', 520, 330],
        ['Terrace', 640, 330],
        ['Hut', 716, 346],
        ['Gate', 352, 462],
        ['Path from the mill', 230, 545],
      ]
        .map(([t, x, y]) => letter(String(t), Number(x), Number(y), 26))
        .join(''),
  );
}

/** The dome cut open. */
export function section(letter: Lettering): string {
  const named = (text: string, x: number, y: number, tx: number, ty: number): string =>
    line(`M${x} ${y}L${tx} ${ty}`, INK, 2) + letter(text, x > 500 ? x + 8 : x - 8, y + 8, 25, { anchor: x > 500 ? 'start' : 'end' });
  return sheet(
    600,
    fill('M0 500H1000V600H0Z', PALE) +
      line('M0 500H1000', INK, 4) +
      fill('M452 600V330H548V600Z', '#C9CFC6', ` stroke="${INK}" stroke-width="4"`) +
      line('M262 500V300H290V500M710 500V300H738V500', INK, 4) +
      line('M290 430H446M554 430H710', INK, 8) +
      fill('M270 280H730V296H270Z', GREEN) +
      dot(292, 288, 17, '#fff', ` stroke="${INK}" stroke-width="4"`) +
      dot(708, 288, 17, '#fff', ` stroke="${INK}" stroke-width="4"`) +
      line('M268 268A232 232 0 0 1 520 37M612 66A232 232 0 0 1 732 268', INK, 8) +
      line('M526 38A232 232 0 0 1 606 64', AMBER, 8, ' stroke-dasharray="4 16"') +
      place(500, 320, fill('M-22 -180H22V120H-22Z', WARM, ` stroke="${INK}" stroke-width="4"`) + fill('M-28 -196H28V-168H-28Z', INK), 16) +
      dot(500, 326, 30, INK) +
      named('Slit', 700, 40, 584, 52) +
      named('Shutter', 700, 90, 628, 74) +
      named('Rail', 800, 250, 728, 288) +
      named('Wheel', 800, 310, 712, 290) +
      named('Floor', 800, 400, 690, 428) +
      named('Pier', 250, 400, 452, 400) +
      named('Rock', 250, 560, 470, 580),
  );
}

/** Four small skies with more and more cloud. */
export function eighths(letter: Lettering): string {
  const cloud = (x: number, y: number, s: number): string =>
    place(
      x,
      y,
      `<g transform="scale(${s})">${fill('M-60 20C-90 20 -86 -20 -54 -18C-50 -56 6 -60 18 -28C52 -44 84 -10 58 20Z', '#C4CBD6')}</g>`,
    );
  const clouds: [number, [number, number, number][]][] = [
    [1, [[-50, 40, 0.7]]],
    [
      3,
      [
        [-40, 50, 0.9],
        [50, -30, 0.8],
        [-50, -50, 0.6],
      ],
    ],
    [
      5,
      [
        [-40, 50, 1.1],
        [50, -20, 1],
        [-40, -50, 0.9],
        [40, 70, 0.8],
      ],
    ],
    [
      7,
      [
        [-40, 60, 1.3],
        [50, -10, 1.3],
        [-40, -40, 1.3],
        [50, 70, 1.1],
        [0, -80, 1.1],
      ],
    ],
  ];
  const random = seeded(12);
  return sheet(
    300,
    clouds
      .map(([n, list], i) => {
        const cx = 130 + i * 247;
        let body = dot(0, 0, 108, NIGHT);
        for (let k = 0; k < 30; k++) {
          const [a, d] = [random() * 6.283, Math.sqrt(random()) * 100];
          body += dot(Math.cos(a) * d, Math.sin(a) * d, 1.5 + random() * 2, '#fff');
        }
        body += `<clipPath id="sky${n}"><circle r="106"/></clipPath><g clip-path="url(#sky${n})">${list.map(([x, y, s]) => cloud(x, y, s)).join('')}</g>${ring(0, 0, 108)}`;
        return place(cx, 124, body) + letter(`${n}/8`, cx, 284, 34);
      })
      .join(''),
  );
}

/** People on the rope before the dome. */
export function rope(): string {
  const random = seeded(8);
  let people = '';
  for (let i = 0; i < 13; i++) people += place(120 + i * 46, 470 + random() * 6, person(i < 3 ? 150 - i * 8 : 76 + ((i * 37) % 34), -7));
  return sheet(
    560,
    fill('M0 480H1000V560H0Z', PALE) +
      line('M0 480H1000', INK, 4) +
      fill('M640 480V210H1000V480Z', '#fff', ` stroke="${INK}" stroke-width="5"`) +
      line('M620 210H1000', GREEN, 16) +
      fill('M630 200A300 300 0 0 1 1000 20V200Z', PALE, ` stroke="${INK}" stroke-width="5"`) +
      [700, 790, 880, 970].map((x) => ring(x, 224, 15, INK, 4, '#fff')).join('') +
      line('M70 436C260 420 480 416 640 398S760 300 800 214', AMBER, 9) +
      people +
      place(820, 474, person(150)),
  );
}

/** The terrace with the low telescope, the bench and the bronze moon. */
export function terrace(): string {
  return sheet(
    440,
    fill('M0 370H1000V440H0Z', PALE) +
      line('M0 370H1000', INK, 4) +
      place(
        250,
        366,
        line('M-70 0L0 -90L70 0M0 -90V0', INK, 7) +
          place(0, -96, fill('M-120 -18H70V18H-120Z', WARM, ` stroke="${INK}" stroke-width="4"`) + fill('M70 -10H100V10H70Z', INK), 30),
      ) +
      place(440, 366, line('M-70 0V-60H70V0M-70 -60V-130H70V-60', INK, 6)) +
      place(440, 306, dot(0, -86, 20) + fill('M-26 -62H26L30 0H-30Z', INK) + line('M20 -50L-50 -20', INK, 12)) +
      place(
        720,
        366,
        line('M-50 0L0 -110L50 0', INK, 6) +
          ring(0, -160, 62, INK, 4, '#E9C68D') +
          [
            [-20, -180, 12],
            [22, -150, 17],
            [-14, -130, 9],
            [18, -190, 7],
            [-36, -152, 7],
          ]
            .map(([x, y, r]) => ring(x!, y!, r!, '#8B6425', 4))
            .join(''),
      ) +
      place(860, 366, person(170) + line('M0 -112L-80 -150', INK, 12)) +
      line('M0 60C220 30 380 90 560 60S860 40 1000 76', '#C4CBD6', 4) +
      dot(90, 90, 5, AMBER) +
      dot(600, 110, 4, AMBER) +
      dot(930, 30, 5, AMBER),
  );
}

/** The dome from above with the third of a circle through which it goes on. */
export function third(letter: Lettering): string {
  const at = (deg: number, r: number): string =>
    `${(500 + Math.cos((deg * Math.PI) / 180) * r).toFixed(1)} ${(270 + Math.sin((deg * Math.PI) / 180) * r).toFixed(1)}`;
  return sheet(
    540,
    ring(500, 270, 210, INK, 5, PALE) +
      ring(500, 270, 30, INK, 4, '#fff') +
      fill(
        `M${at(-165, 208)}L${at(-165, 60)}L${at(-151, 60)}L${at(-151, 208)}Z`,
        '#fff',
        ` stroke="${INK}" stroke-width="4" stroke-dasharray="10 8"`,
      ) +
      fill(`M${at(-45, 208)}L${at(-45, 60)}L${at(-31, 60)}L${at(-31, 208)}Z`, AMBER) +
      line(`M${at(-150, 240)}A240 240 0 0 1 ${at(-48, 240)}`, GREEN, 8) +
      head(...(at(-43, 240).split(' ').map(Number) as [number, number]), 50, GREEN, 30) +
      letter('Let go', 210, 110, 30, { anchor: 'end' }) +
      letter('At rest', 768, 100, 30, { anchor: 'start' }) +
      letter('120°', 500, 22, 30),
  );
}
