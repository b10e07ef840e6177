/** The latitude and longitude of Marrowby Hill, which is in no atlas. */
const [LATITUDE, LONGITUDE] = [51.2, -2.1];
const rad = Math.PI / 180;

/** Hours of the day as hours and minutes, e.g. 6.81 → "06.49". */
const clock = (hours: number): string => {
  const minutes = Math.round(hours * 60);
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}.${String(minutes % 60).padStart(2, '0')}`;
};

/** When the sun stands at an altitude on a day of the year, before and after noon (the usual series for its place, good to a minute or two). */
function sunAt(day: number, altitude: number): [morning: number, evening: number] | null {
  const g = ((2 * Math.PI) / 365) * (day - 1);
  const declination =
    0.006918 -
    0.399912 * Math.cos(g) +
    0.070257 * Math.sin(g) -
    0.006758 * Math.cos(2 * g) +
    0.000907 * Math.sin(2 * g) -
    0.002697 * Math.cos(3 * g) +
    0.00148 * Math.sin(3 * g);
  const equation =
    229.18 * (0.000075 + 0.001868 * Math.cos(g) - 0.032077 * Math.sin(g) - 0.014615 * Math.cos(2 * g) - 0.040849 * Math.sin(2 * g));
  const cosine =
    (Math.sin(altitude * rad) - Math.sin(LATITUDE * rad) * Math.sin(declination)) / (Math.cos(LATITUDE * rad) * Math.cos(declination));
  if (Math.abs(cosine) > 1) return null;
  const half = Math.acos(cosine) / rad / 15;
  const noon = 12 - LONGITUDE / 15 - equation / 60;
  return [noon - half, noon + half];
}

const MONTHS = ['March', 'April', 'May'];
const DAYS = [31, 30, 31];
/** A new moon: 17 February 2026, noon (from memory). */
const NEW_MOON = 48.5;
const LUNATION = 29.53059;

/** Rows of the table of light and dark, every third day from the first of March to the end of May. */
export function lightAndDark(): string[][] {
  const rows: string[][] = [];
  for (let day = 60; day < 60 + 92; day += 3) {
    let [month, date] = [0, day - 59];
    while (date > DAYS[month]!) date -= DAYS[month++]!;
    const [rise, set] = sunAt(day, -0.833)!;
    const dark = sunAt(day, -18);
    const age = (day + 0.9 - NEW_MOON) % LUNATION;
    rows.push([`${date} ${MONTHS[month]}`, clock(rise), clock(set), dark ? clock(dark[1]) : 'not at all', age.toFixed(0), moonWord(age)]);
  }
  return rows;
}

function moonWord(age: number): string {
  const phase = age / LUNATION;
  if (phase < 0.04 || phase > 0.96) return 'new';
  if (phase < 0.21) return 'evening, thin';
  if (phase < 0.29) return 'half, evening';
  if (phase < 0.46) return 'bright until late';
  if (phase < 0.54) return 'full, all night';
  if (phase < 0.71) return 'rises late';
  return phase < 0.79 ? 'half, morning' : 'morning, thin';
}
