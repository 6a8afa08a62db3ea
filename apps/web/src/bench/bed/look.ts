/** What the artwork is drawn as: by operation, in the paints it came with, as fine outlines, or as it will be burnt. */
export const looks = ['operations', 'paints', 'outlines', 'burnt'] as const;
export type Look = (typeof looks)[number];
