/** What a head goes around, unlit, before it burns: the box of a run, its convex hull, or every outline in it. */
export const walkShapes = ['rectangle', 'hull', 'outlines'] as const;
export type WalkShape = (typeof walkShapes)[number];
