import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import ts from 'typescript';
import { filesIn, root } from './lib.mjs';

/** What docs/vocabulary.md says that screens do not say, each with what they say instead. */
function forbiddenWords() {
  const text = readFileSync(join(root, 'docs/vocabulary.md'), 'utf8');
  const table = text.slice(text.indexOf('## Words that screens do not use'));
  return table
    .split('\n')
    .filter((line) => line.startsWith('| _'))
    .flatMap((line) => {
      const [, words, instead] = line.split('|').map((cell) => cell.trim());
      return words.split(', ').map((word) => ({ word: word.replaceAll('_', ''), instead }));
    });
}

/** Every text of a source file that may stand on a screen: JSX text, and strings of more than one word. */
function textsIn(path) {
  const source = ts.createSourceFile(path, readFileSync(join(root, path), 'utf8'), ts.ScriptTarget.Latest, true);
  const texts = [];
  const visit = (node) => {
    if (ts.isImportDeclaration(node)) return;
    const isString = ts.isStringLiteralLike(node) || ts.isTemplateHead(node) || ts.isTemplateMiddleOrTemplateTail(node);
    const isClass = ts.isJsxAttribute(node.parent ?? node) && node.parent.name?.getText() === 'className';
    if (ts.isJsxText(node) || (isString && !isClass && /\s/.test(node.text.trim()))) texts.push(node.text);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return texts;
}

const folders = ['apps/web/src', 'packages/core/src', 'packages/machines/src', 'apps/server/src'];
const sources = folders.flatMap(filesIn).filter((path) => /\.tsx?$/.test(path) && !/\.test\.|fixtures/.test(path));

test('screens use one word for one thing, and none that docs/vocabulary.md rules out', () => {
  const forbidden = forbiddenWords();
  expect(forbidden.length).toBeGreaterThan(10);
  const found = sources.flatMap((path) =>
    textsIn(path).flatMap((text) =>
      forbidden
        .filter(({ word }) => new RegExp(`\\b${word}\\b`, 'i').test(text))
        .map(({ word, instead }) => `${path}: “${word}”, say ${instead}: ${text.trim()}`),
    ),
  );
  expect(found).toEqual([]);
});
