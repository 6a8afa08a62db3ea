export { type Copied, copiedAsSvg, copiedFrom, copiedFromText, copiedToText } from './copied.ts';
export { pasteInto } from './paste.ts';
