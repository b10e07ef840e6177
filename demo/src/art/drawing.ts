/** The inks and pen of the handbook's drawings: pen and ink on white, one green, one amber. */
export const INK = '#22302C';
export const GREEN = '#1E5B4B';
export const AMBER = '#C9772B';
export const PALE = '#E6EBE4';
export const NIGHT = '#17233B';
export const WARM = '#F6E3C3';

/** All drawings are this many pixels wide. */
export const WIDTH = 1000;

export const sheet = (height: number, body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${height}" viewBox="0 0 ${WIDTH} ${height}"><rect width="${WIDTH}" height="${height}" fill="#fff"/><g stroke-linecap="round" stroke-linejoin="round">${body}</g></svg>`;
export const line = (d: string, stroke = INK, width = 4, more = ''): string =>
  `<path d="${d}" fill="none" stroke="${stroke}" stroke-width="${width}"${more}/>`;
export const fill = (d: string, colour: string, more = ''): string => `<path d="${d}" fill="${colour}"${more}/>`;
export const dot = (x: number, y: number, r: number, colour = INK, more = ''): string =>
  `<circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="${r.toFixed(1)}" fill="${colour}"${more}/>`;
export const ring = (x: number, y: number, r: number, stroke = INK, width = 4, colour = 'none'): string =>
  `<circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="${r.toFixed(1)}" fill="${colour}" stroke="${stroke}" stroke-width="${width}"/>`;
export const place = (x: number, y: number, body: string, turn = 0): string =>
  `<g transform="translate(${x} ${y}) rotate(${turn})">${body}</g>`;
/** A head of an arrow at (x, y) that points along `angle` degrees. */
export const head = (x: number, y: number, angle: number, colour = INK, size = 16): string =>
  place(x, y, fill(`M0 0L${-size} ${size * 0.5}L${-size} ${-size * 0.5}Z`, colour), angle);
