// What German takes besides English, got only where it is spoken.
export { de as dates } from 'date-fns/locale/de';
export { default as words } from './de.json';
export { translatorOf } from './translator.ts';
