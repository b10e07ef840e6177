/** A record without one of its keys. */
export function without<T extends object, K extends keyof T>(record: T, key: K): Omit<T, K> {
  const rest = { ...record };
  delete rest[key];
  return rest;
}
