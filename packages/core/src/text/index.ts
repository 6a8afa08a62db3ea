export { describeFont, FontBook, type FontFile, FontRefused } from './fonts.ts';
export { type SetText, setText, textShape, usualText } from './set.ts';
export { type StrokeFont, strokeFontBytes } from './strokes.ts';
