import { language } from './words/language.ts';
import { loadWords } from './words/words.ts';

document.documentElement.lang = language;
// Parts say some of their words as soon as they are loaded, so the words come first.
loadWords()
  // By itself, so that the page answers between the two.
  .then(() => import('react-dom/client'))
  .then(() => import('./app.tsx'))
  .catch(() => {
    document.body.textContent = 'Lambent could not be loaded: a part of it did not come. Load the page again.';
  });
