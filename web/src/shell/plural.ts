/** A number with what it counts: “1 page”, “3 pages”, “2 entries”. */
export const plural = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;
