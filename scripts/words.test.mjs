import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import ts from 'typescript';
import { filesIn, root } from './lib.mjs';

const sources = ['apps', 'packages']
  .flatMap(filesIn)
  .filter((path) => /\.tsx?$/.test(path) && !/\.(test|d)\.tsx?$|\/(test|fixtures|dist[^/]*)\//.test(path))
  .map((path) => [
    path,
    ts.createSourceFile(path, readFileSync(join(root, path), 'utf8'), ts.ScriptTarget.Latest, true),
  ]);

const isExported = (node) => node.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword) ?? false;

/** The names and nodes of the functions that a file exports, those kept in constants among them. */
function exportedFunctions(file) {
  return file.statements.filter(isExported).flatMap((statement) => {
    if (ts.isFunctionDeclaration(statement)) return [[statement.name?.text, statement]];
    if (!ts.isVariableStatement(statement)) return [];
    return statement.declarationList.declarations
      .filter(({ initializer }) => initializer && ts.isArrowFunction(initializer))
      .map(({ name }) => [name.getText(), statement]);
  });
}

/** The sentences of a comment, without its marks, its tags, and code. */
function sentencesOf(comment) {
  const text = comment
    .replace(/^\/\*\*?|\*\/$/g, '')
    .replace(/^\s*\*\s?/gm, '')
    .replace(/`[^`]*`/g, 'code')
    .replace(/\([^()]*\d{4}[^()]*\)/g, '');
  return text
    .split(/(?<=[.:;!?])\s+|\n\s*\n|\s(?=@)/)
    .map((sentence) => sentence.trim().split(/\s+/))
    .filter((words) => words.length > 1);
}

test('every exported function has a docstring', () => {
  const all = sources.flatMap(([path, file]) => exportedFunctions(file).map(([name, node]) => ({ path, name, node })));
  expect(all.length).toBeGreaterThan(1000);
  const without = all.filter(({ node }) => ts.getJSDocCommentsAndTags(node).length === 0);
  expect(without.map(({ path, name }) => `${path}: ${name}`)).toEqual([]);
});

test('no sentence of a comment is longer than 25 words', () => {
  const comments = sources.flatMap(([path, file]) =>
    [...file.text.matchAll(/\/\*[\s\S]*?\*\//g)].map(([comment]) => ({ path, comment })),
  );
  expect(comments.length).toBeGreaterThan(1500);
  const long = comments.flatMap(({ path, comment }) =>
    sentencesOf(comment)
      .filter((words) => words.length > 25)
      .map((words) => `${path}: ${words.join(' ')}`),
  );
  expect(long).toEqual([]);
});

/** Names that no one can search for. */
const unsearchable = new Set(['of', 'at', 'one', 'by']);

/** Declared under such a name: but for what a stored or sent object calls so, and for the y of a point `b`. */
function unsearchableIn(file) {
  const found = [];
  const visit = (node) => {
    const declares = ts.isVariableDeclaration(node) || ts.isParameter(node) || ts.isBindingElement(node);
    const isField = ts.isBindingElement(node) && ts.isObjectBindingPattern(node.parent) && !node.propertyName;
    const isOrdinate = ts.isBindingElement(node) && node.parent.elements.some(({ name }) => name?.getText() === 'bx');
    if (declares && !isField && !isOrdinate && unsearchable.has(node.name.getText())) found.push(node.getText());
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

test('no variable and no parameter has a name that cannot be searched for', () => {
  const example = ts.createSourceFile('x.ts', 'const f = (one, { at }) => [one, at]', ts.ScriptTarget.Latest, true);
  expect(unsearchableIn(example)).toEqual(['one']);
  const found = sources.flatMap(([path, file]) => unsearchableIn(file).map((text) => `${path}: ${text.slice(0, 60)}`));
  expect(found).toEqual([]);
});
