/** A value of a JSON column: one driver gives it as text, another as what it is. */
export const fromJson = (value: unknown): unknown => (typeof value === 'string' ? JSON.parse(value) : value);
