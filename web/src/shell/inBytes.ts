/** A number of bytes as it is said of files. */
export const inBytes = (bytes: number): string =>
  bytes === 0
    ? '0 kB'
    : bytes >= 1_000_000
      ? `${(bytes / 1_000_000).toFixed(1)} MB`
      : `${bytes < 10_000 ? (bytes / 1000).toFixed(1) : Math.round(bytes / 1000)} kB`;
