/** The sign of the program: a sheet that stretches. */
export const Mark = () => (
  <svg width="26" height="22" viewBox="0 0 26 22" aria-hidden>
    <path d="M1 4 9 1v16l-8 3z" fill="var(--fir)" />
    <path d="M9 1c6 5 3 9 8 8l8-4v13c-6 6-9 1-16-1z" fill="var(--fir-tint)" stroke="var(--fir)" strokeWidth="1.4" />
  </svg>
);
