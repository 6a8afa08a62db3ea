/** A made-up photo of hills, water and a heron at dusk: its grey values row by row, 0 for black to 255 for white. */
export function heronAtDusk(width?: number, height?: number): { width: number; height: number; greys: Uint8Array };
