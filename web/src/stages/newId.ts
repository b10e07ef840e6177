/** An id for something that is made here. */
export const newId = (kind: string): string => `${kind}-${crypto.randomUUID().slice(0, 8)}`;
