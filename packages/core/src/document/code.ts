import type { ValueOf } from '../schema/schema.ts';
import { record } from '../schema/structures.ts';
import { number, oneOf, text, yes } from '../schema/values.ts';

/** The codes that a camera or a scanner reads; all are open standards. */
export const symbologies = ['qr', 'data-matrix', 'code-128'] as const;
export type Symbology = (typeof symbologies)[number];

/** What a code says, and how large it is with its quiet zone, in mm; its frame is from (0, 0) to its width and height. */
export const codeSetting = record({
  symbology: oneOf(symbologies),
  words: text,
  width: number(0.1, 10_000),
  /** Of square codes as much as the width. */
  height: number(0.1, 10_000),
  /** Whether its light parts and its quiet zone burn, on stock that the beam makes lighter. */
  isLight: yes,
});
export type CodeSetting = ValueOf<typeof codeSetting>;

export const symbologyNames: Readonly<Record<Symbology, string>> = {
  qr: 'QR code',
  'data-matrix': 'Data Matrix',
  'code-128': 'Code 128',
};
