/** A number with what it counts: “1 page”, “3 pages”. */
export const plural = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;
