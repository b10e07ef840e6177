/** Elements inside one another, at most: no real document comes near it, and deeper ones would exhaust whatever walks them. */
export const DEEPEST_XML = 256;
