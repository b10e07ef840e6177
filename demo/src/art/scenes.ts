import { seeded } from './random.ts';

const svg = (w: number, h: number, body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}">${body}</svg>`;
const f = (n: number): string => n.toFixed(1);

/** Stars over an area, most of them faint, denser along a slanted band. */
function stars(w: number, h: number, count: number, seed: number, below = h): string {
  const random = seeded(seed);
  let out = '';
  for (let i = 0; i < count; i++) {
    const inBand = random() < 0.45;
    const x = random() * w;
    const y = inBand ? Math.min(below, Math.max(0, h * 0.62 - x * 0.32 + (random() + random() - 1) * h * 0.16)) : random() * below;
    const bright = random() ** 5;
    const tone = random() < 0.2 ? '#FFE6C2' : random() < 0.3 ? '#CFE0FF' : '#FFFFFF';
    out += `<circle cx="${f(x)}" cy="${f(y)}" r="${f(0.5 + bright * 2.6)}" fill="${tone}" opacity="${f(0.35 + bright * 0.65)}"/>`;
    if (bright > 0.75) out += `<circle cx="${f(x)}" cy="${f(y)}" r="${f(6 + bright * 8)}" fill="${tone}" opacity="0.10"/>`;
  }
  return out;
}

function hills(w: number, h: number, base: number, height: number, seed: number, fill: string): string {
  const random = seeded(seed);
  const [p1, p2, p3] = [random() * 6, random() * 6, random() * 6];
  let d = `M0 ${h}`;
  for (let x = 0; x <= w; x += 8)
    d += `L${x} ${f(base - height * (0.5 + 0.3 * Math.sin((x / w) * 5 + p1) + 0.15 * Math.sin((x / w) * 13 + p2) + 0.05 * Math.sin((x / w) * 41 + p3)))}`;
  return `<path d="${d}L${w} ${h}Z" fill="${fill}"/>`;
}

/** The observatory: a drum, a dome with its slit open, and a lit door. */
function dome(x: number, ground: number, r: number, body: string, lit: string): string {
  return (
    `<g transform="translate(${x} ${ground})"><path d="M${-r * 0.92} 0V${-r * 0.55}H${r * 0.92}V0Z" fill="${body}"/>` +
    `<path d="M${-r} ${-r * 0.55}A${r} ${r} 0 0 1 ${r} ${-r * 0.55}Z" fill="${body}"/><path d="M${-r} ${-r * 0.55}A${r} ${r} 0 0 1 ${-r * 0.2} ${-r * 1.53}" fill="none" stroke="#fff" stroke-opacity=".16" stroke-width="${r * 0.03}"/>` +
    `<path d="M${r * 0.12} ${-r * 1.54}Q${r * 0.34} ${-r * 1.2} ${r * 0.36} ${-r * 0.62}H${r * 0.6}Q${r * 0.56} ${-r * 1.2} ${r * 0.34} ${-r * 1.5}Z" fill="${lit}"/>` +
    `<rect x="${-r * 0.14}" y="${-r * 0.36}" width="${r * 0.22}" height="${r * 0.36}" fill="${lit}" opacity=".85"/><path d="M${-r} ${-r * 0.55}H${r}" stroke="#fff" stroke-opacity=".2" stroke-width="${r * 0.035}"/></g>`
  );
}

const gradient = (id: string, stops: [number, string][], x2 = 0, y2 = 1): string =>
  `<defs><linearGradient id="${id}" x1="0" y1="0" x2="${x2}" y2="${y2}">${stops.map(([o, c]) => `<stop offset="${o}" stop-color="${c}"/>`).join('')}</linearGradient></defs>`;

/** The dome on its hill at dusk; `ground` is the share of the height above the foot of the dome. */
export function domeAtDusk(w: number, h: number, ground = 0.9): string {
  return svg(
    w,
    h,
    gradient('sky', [
      [0, '#0E1A33'],
      [0.42, '#2C3F6E'],
      [0.66, '#7C5C7E'],
      [0.8, '#D0805A'],
      [0.88, '#F0B36A'],
    ]) +
      `<rect width="${w}" height="${h}" fill="url(#sky)"/>` +
      stars(w, h, 620, 7, h * 0.6) +
      `<circle cx="${w * 0.76}" cy="${h * 0.2}" r="${w * 0.062}" fill="#F7EBCB"/><circle cx="${w * 0.735}" cy="${h * 0.192}" r="${w * 0.06}" fill="#1B2A4D"/>` +
      hills(w, h, h * ground, h * 0.12, 3, '#4A3A55') +
      hills(w, h, h * (ground + 0.05), h * 0.12, 5, '#2A2A40') +
      dome(w * 0.4, h * ground, w * 0.135, '#171D30', '#FFD98A') +
      hills(w, h, h * (ground + 0.12), h * 0.14, 11, '#131826'),
  );
}

/** Deep night over the hill with the band of the galaxy: dark enough for white text. */
export function nightSky(w: number, h: number): string {
  return svg(
    w,
    h,
    gradient('n', [
      [0, '#0A1226'],
      [0.6, '#16254A'],
      [1, '#22355F'],
    ]) +
      `<rect width="${w}" height="${h}" fill="url(#n)"/>` +
      `<g opacity=".5"><path d="M0 ${h * 0.72}Q${w * 0.5} ${h * 0.4} ${w} ${h * 0.22}V${h * 0.4}Q${w * 0.5} ${h * 0.58} 0 ${h * 0.9}Z" fill="#5A6FA8" opacity=".16"/><path d="M0 ${h * 0.77}Q${w * 0.5} ${h * 0.46} ${w} ${h * 0.27}V${h * 0.34}Q${w * 0.5} ${h * 0.52} 0 ${h * 0.84}Z" fill="#9FB2E6" opacity=".16"/></g>` +
      stars(w, h, 1300, 23) +
      hills(w, h, h * 1.02, h * 0.1, 31, '#060A14'),
  );
}

/** The sky over the dome at a share of a night: stars on their ways about the pole. */
export function turningSky(w: number, h: number, night: number): string {
  const random = seeded(41);
  const [px, py, far] = [w * 0.5, h * 0.42, Math.hypot(w, h) * 0.62];
  let out = '';
  for (let i = 0; i < 260; i++) {
    const r = Math.sqrt(random()) * far;
    // Whole turns, so that the film begins again where it ends.
    const a = random() * 2 * Math.PI - night * 2 * Math.PI;
    const bright = random() ** 4;
    const [x, y] = [px + r * Math.cos(a), py + r * Math.sin(a)];
    out += `<circle cx="${f(x)}" cy="${f(y)}" r="${f((1.8 + bright * 4) * (w / 960))}" fill="${random() < 0.3 ? '#FFE6C2' : '#fff'}" opacity="${f(0.5 + bright / 2)}"/>`;
  }
  return svg(
    w,
    h,
    `<rect width="${w}" height="${h}" fill="#101B38"/>${out}<circle cx="${f(px)}" cy="${f(py)}" r="4" fill="#fff"/>` +
      hills(w, h, h * 1.0, h * 0.12, 5, '#0A1020') +
      dome(w * 0.5, h * 0.94, w * 0.08, '#0A1020', '#FFD98A'),
  );
}

/** The telescope in its open dome, seen from the floor. */
export function telescope(w: number, h: number): string {
  const u = w / 100;
  return svg(
    w,
    h,
    gradient('in', [
      [0, '#141C30'],
      [1, '#3A2A33'],
    ]) +
      `<rect width="${w}" height="${h}" fill="url(#in)"/>` +
      `<path d="M${w * 0.34} ${h}V${h * 0.3}Q${w * 0.5} ${h * 0.02} ${w * 0.66} ${h * 0.3}V${h}Z" fill="#22386C"/>` +
      `<svg x="${w * 0.34}" y="0" width="${w * 0.32}" height="${h}">${stars(w * 0.32, h, 120, 5)}</svg>` +
      Array.from(
        { length: 9 },
        (_, i) =>
          `<path d="M${w * 0.5} ${-h * 0.2}Q${w * (0.5 + (i - 4) * 0.16)} ${h * 0.2} ${w * (0.5 + (i - 4) * 0.2)} ${h}" fill="none" stroke="#0C1222" stroke-opacity=".35" stroke-width="${u * 0.6}"/>`,
      ).join('') +
      `<g transform="translate(${w * 0.5} ${h * 0.72}) rotate(-32)"><rect x="${-u * 7}" y="${-u * 46}" width="${u * 14}" height="${u * 60}" rx="${u * 1.5}" fill="#C9B98F"/><rect x="${-u * 8}" y="${-u * 48}" width="${u * 16}" height="${u * 7}" rx="${u}" fill="#A8946A"/><rect x="${-u * 2}" y="${u * 14}" width="${u * 4}" height="${u * 8}" fill="#7C6B48"/><rect x="${u * 8}" y="${-u * 20}" width="${u * 3.4}" height="${u * 26}" rx="${u}" fill="#8F7E58"/><path d="M${-u * 7} ${-u * 38}h${u * 14}M${-u * 7} ${-u * 2}h${u * 14}" stroke="#8F7E58" stroke-width="${u * 1.2}"/></g>` +
      `<path d="M${w * 0.5} ${h * 0.7}L${w * 0.4} ${h}H${w * 0.6}Z" fill="#0D1424"/><circle cx="${w * 0.5}" cy="${h * 0.72}" r="${u * 5}" fill="#1B2440"/>`,
  );
}

/** The moon at a phase from 0 (new) over 0.5 (full) to 1. Transparent ground. */
export function moon(size: number, phase: number): string {
  const r = size * 0.46;
  const c = size / 2;
  const random = seeded(91);
  const craters = Array.from({ length: 26 }, () => {
    const [a, d, s] = [random() * 6.283, Math.sqrt(random()) * r * 0.9, r * (0.03 + random() * 0.1)];
    return `<circle cx="${f(c + Math.cos(a) * d)}" cy="${f(c + Math.sin(a) * d)}" r="${f(s)}" fill="#B9AD8E" opacity=".45"/>`;
  }).join('');
  const waxing = phase <= 0.5;
  const k = Math.cos(phase * 2 * Math.PI);
  // The lit limb is half a circle, the terminator half an ellipse of width |k|.
  const limb = waxing ? 1 : 0;
  const terminator = waxing ? (k > 0 ? 0 : 1) : k > 0 ? 1 : 0;
  const lit = `M${c} ${c - r}A${r} ${r} 0 0 ${limb} ${c} ${c + r}A${f(Math.abs(k) * r)} ${r} 0 0 ${terminator} ${c} ${c - r}Z`;
  return svg(
    size,
    size,
    `<defs><clipPath id="l"><path d="${lit}"/></clipPath></defs><circle cx="${c}" cy="${c}" r="${r}" fill="#26345A"/><g clip-path="url(#l)"><circle cx="${c}" cy="${c}" r="${r}" fill="#F3E8C8"/>${craters}</g>`,
  );
}

/** A round chart of the evening sky: invented star groups with lines, rings of altitude, points of the compass. */
export function starChart(size: number): string {
  const random = seeded(44);
  const c = size / 2;
  const R = size * 0.44;
  let out = `<rect width="${size}" height="${size}" fill="#FBF9F4"/><circle cx="${c}" cy="${c}" r="${R}" fill="#17233B"/>`;
  for (const k of [1 / 3, 2 / 3])
    out += `<circle cx="${c}" cy="${c}" r="${R * k}" fill="none" stroke="#5B6C98" stroke-width="${size * 0.0012}" stroke-dasharray="${size * 0.006} ${size * 0.006}"/>`;
  for (let i = 0; i < 12; i++)
    out += `<path d="M${c} ${c}L${f(c + Math.cos((i * Math.PI) / 6) * R)} ${f(c + Math.sin((i * Math.PI) / 6) * R)}" stroke="#33436C" stroke-width="${size * 0.001}"/>`;
  for (let i = 0; i < 420; i++) {
    const [a, d, m] = [random() * 6.283, Math.sqrt(random()) * R * 0.98, random() ** 4];
    out += `<circle cx="${f(c + Math.cos(a) * d)}" cy="${f(c + Math.sin(a) * d)}" r="${f(size * (0.0008 + m * 0.003))}" fill="#fff" opacity="${f(0.5 + m * 0.5)}"/>`;
  }
  for (let g = 0; g < 9; g++) {
    const [a, d] = [(g / 9) * 6.283 + random(), R * (0.25 + random() * 0.55)];
    let [x, y, turn] = [c + Math.cos(a) * d, c + Math.sin(a) * d, random() * 6.283];
    let path = `M${f(x)} ${f(y)}`;
    let dots = '';
    for (let s = 0; s < 5 + Math.floor(random() * 3); s++) {
      dots += `<circle cx="${f(x)}" cy="${f(y)}" r="${f(size * (0.004 + random() * 0.004))}" fill="#FFE9B8"/>`;
      turn += (random() - 0.5) * 2;
      const nx = x + Math.cos(turn) * R * 0.13;
      const ny = y + Math.sin(turn) * R * 0.13;
      if (Math.hypot(nx - c, ny - c) > R * 0.94) break;
      [x, y] = [nx, ny];
      path += `L${f(x)} ${f(y)}`;
    }
    out += `<path d="${path}" fill="none" stroke="#C58A14" stroke-width="${size * 0.0022}"/>${dots}`;
  }
  return svg(size, size, `${out}<circle cx="${c}" cy="${c}" r="${R}" fill="none" stroke="#1E5B4B" stroke-width="${size * 0.006}"/>`);
}

/** The way up Marrowby Hill, as a small map. */
export function hillMap(w: number, h: number): string {
  let out = `<rect width="${w}" height="${h}" fill="#E9E2CF"/>`;
  for (let i = 0; i < 9; i++)
    out += `<ellipse cx="${w * 0.58}" cy="${h * 0.42}" rx="${w * (0.5 - i * 0.052)}" ry="${h * (0.46 - i * 0.047)}" fill="${i % 2 ? '#DCD6B9' : '#D3D2AC'}" stroke="#A9A57C" stroke-width="${w * 0.002}" transform="rotate(${-14 + i * 3} ${w * 0.58} ${h * 0.42})"/>`;
  out += `<path d="M0 ${h * 0.9}C${w * 0.3} ${h * 0.8} ${w * 0.24} ${h * 0.62} ${w * 0.42} ${h * 0.66}S${w * 0.7} ${h * 0.66} ${w * 0.66} ${h * 0.52}S${w * 0.5} ${h * 0.46} ${w * 0.58} ${h * 0.4}" fill="none" stroke="#A83E22" stroke-width="${w * 0.011}" stroke-dasharray="${w * 0.024} ${w * 0.013}" stroke-linecap="round"/>`;
  out += `<path d="M0 ${h * 0.2}C${w * 0.2} ${h * 0.26} ${w * 0.2} ${h * 0.5} ${w * 0.08} ${h}" fill="none" stroke="#6E93AE" stroke-width="${w * 0.016}"/>`;
  return svg(w, h, out + dome(w * 0.58, h * 0.42, w * 0.045, '#17233B', '#F0B36A'));
}

/** People on the path after sunset: the shadow of the earth over the ridge, the pink band above it, lamps in the valley. */
export function twilightPath(w: number, h: number): string {
  const random = seeded(27);
  let lamps = '';
  for (let i = 0; i < 60; i++)
    lamps += `<circle cx="${f(w * (0.5 + random() * 0.5))}" cy="${f(h * (0.76 + random() * 0.1))}" r="${f(1 + random() * 2)}" fill="#F7D08A"/>`;
  const walker = (x: number, y: number, s: number): string =>
    `<g transform="translate(${f(x)} ${f(y)}) scale(${f(s)})"><circle cx="0" cy="-52" r="8" fill="#0C1222"/><path d="M-9 -42H9L13 -14L7 0H2L0 -18L-3 0H-8L-12 -14Z" fill="#0C1222"/></g>`;
  const path = (t: number): [number, number] => [w * (0.02 + 0.62 * t), h * (0.98 - 0.2 * t - 0.2 * Math.sin(t * 2.4) * t)];
  let people = '';
  for (let i = 0; i < 11; i++) {
    const [x, y] = path(0.16 + i * 0.075);
    people += walker(x, y, 1.25 - i * 0.07);
  }
  return svg(
    w,
    h,
    gradient('t', [
      [0, '#101D3C'],
      [0.34, '#36497E'],
      [0.52, '#8E6E8E'],
      [0.6, '#D08A7C'],
      [0.68, '#6D7FA6'],
      [0.8, '#3D5278'],
    ]) +
      `<rect width="${w}" height="${h}" fill="url(#t)"/>` +
      stars(w, h, 90, 61, h * 0.4) +
      hills(w, h, h * 0.84, h * 0.16, 9, '#33415E') +
      lamps +
      `<path d="M0 ${h}C${w * 0.2} ${h * 0.92} ${w * 0.3} ${h * 0.66} ${w * 0.62} ${h * 0.58}S${w * 0.86} ${h * 0.9} ${w} ${h * 0.96}V${h}Z" fill="#141B2F"/>` +
      dome(w * 0.66, h * 0.6, h * 0.15, '#0C1222', '#FFD98A') +
      people,
  );
}
