// What the interface says: every sentence in the code that is said through `t`, and every one that is not.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { filesIn, root } from './lib.mjs';

const folder = 'apps/web/src';
/** Written by machines for machines, or told in English on purpose. */
const leftOut = /\.test\.|\/fixtures\/|\/workers\/|\/words\/|shared-worker|schema\.ts$/;

/** Attributes and properties that hold no words, and functions that are told none. */
const wordless = {
  attributes:
    /^(className|bodyClass|d|style|transform|viewBox|offset|accept|autoComplete|preserveAspectRatio|fontFamily|data-.*|href|to|src|aria-(live|labelledby|describedby|controls))$/,
  functions:
    /^(closest|matches|querySelector|querySelectorAll|getItem|setItem|matchMedia|RegExp|URL|Worker|useKeptSettings|startsWith|endsWith|includes|split|replace|replaceAll|withKeys|setAttribute|format)$/,
  properties: /^(className|cell|head|queryKey|keys|font|fontFamily|gridTemplateColumns|trigger|path)$/,
};
/** Strings that look like words and are none: names of keys and of the browser's own things, CSS, and what is kept in records. */
const noWords = new Set([
  ...['Content-Type', 'bottom start', 'bottom end', 'top start', 'top end', 'border-line bg-table', 'textarea, select'],
  ...[
    'd MMM yyyy',
    'd. MMM yyyy',
    '.gcode',
    'lambent bench 0',
    'lambent copied',
    'deleted jobs',
    'The page has no #root',
  ],
  ...['program ways', 'burnt picture', 'run basis', 'take out', 'mend lines', 'grid of copies', 'ring of copies'],
  ...['pen or mouse', 'in place', 'turned over', 'moved on', 'broken off', 'going on', 'worked out', 'as they are'],
  ...['day first', 'month first', 'year first', 'low high', 'by hand', 'yes or no', 'figure or found'],
  ...['back left', 'back right', 'front left', 'front right', 'typed into the book', 'test card, 0'],
  ...['wants you', 'came in', 'being prepared', 'on a machine', 'handed over', 'put away', 'wanted by'],
  // Said before there are any words.
  'Lambent could not be loaded: a part of it did not come. Load the page again.',
]);

function sourcesOf() {
  return filesIn(folder)
    .filter((path) => /\.tsx?$/.test(path) && !leftOut.test(path))
    .sort()
    .map((path) => {
      const kind = path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS;
      const text = readFileSync(join(root, path), 'utf8');
      return { path, source: ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true, kind) };
    });
}

function isSaid(node) {
  return ts.isCallExpression(node) && node.expression.getText() === 't';
}

/** A thing that is said with its count, `counted(3, 'job')`. */
function isCounted(node) {
  return ts.isCallExpression(node) && node.expression.getText() === 'counted' && node.arguments.length === 2;
}

/** What a call of `t` may say: its first argument, or either of two. Null where that is known only as it runs. */
function saidBy(argument) {
  if (ts.isStringLiteralLike(argument)) return [argument.text];
  if (ts.isConditionalExpression(argument)) {
    const [whenTrue, whenFalse] = [saidBy(argument.whenTrue), saidBy(argument.whenFalse)];
    return whenTrue && whenFalse && [...whenTrue, ...whenFalse];
  }
  return null;
}

/** Every sentence that is said, in the order of the files, each once. */
export function sentences() {
  const found = new Set();
  for (const { source } of sourcesOf()) {
    const visit = (node) => {
      if (isSaid(node)) for (const sentence of saidBy(node.arguments[0]) ?? []) found.add(sentence);
      if (isCounted(node)) for (const ending of ['', 's']) found.add(`{{count}} ${node.arguments[1].text}${ending}`);
      ts.forEachChild(node, visit);
    };
    visit(source);
  }
  return [...found];
}

/** What stands in the code as words, and is not said through `t`: as `path: words`. */
export function strayWords() {
  const found = [];
  for (const { path, source } of sourcesOf()) {
    const visit = (node) => {
      if (isSaid(node) || ts.isImportDeclaration(node) || ts.isTypeNode(node)) {
        for (const more of isSaid(node) ? node.arguments.slice(1) : []) visit(more);
        return;
      }
      if (isCounted(node)) return;
      const text = wordsOf(node);
      if (text !== null && !noWords.has(text.trim())) found.push(`${path}: ${text.trim()}`);
      ts.forEachChild(node, visit);
    };
    visit(source);
  }
  return found;
}

/** The words that a node puts on the screen; null where it puts none. */
function wordsOf(node) {
  if (ts.isJsxText(node)) return /\p{L}{2}/u.test(node.text) ? node.text : null;
  const isTemplate = ts.isTemplateExpression(node);
  if (!isTemplate && !ts.isStringLiteralLike(node)) return null;
  const text = isTemplate
    ? [node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)].join('0')
    : node.text;
  return (looksLikeWords(text) || (!isTemplate && isShown(node, text))) && !isWordless(node) ? text : null;
}

/** Words beside each other, or a sentence. Rules of CSS, paths and addresses have other signs among them. */
function looksLikeWords(text) {
  if (/[[\]_#]|--|:[a-z]|\b(flex|grid|rounded|px|var|calc|url)\b|^[./]/.test(text)) return false;
  return /\p{L}{2,}[,.:…]? [“(]?\p{L}{2,}/u.test(text) && !/^[\d\s]*px|color-mix|gradient\(|[a-z]-\d/.test(text);
}

/** One word, where words are shown. */
function isShown(node, text) {
  if (!/^\p{Lu}?\p{Ll}{2,}$/u.test(text)) return false;
  const { parent } = node;
  if (isOneOrMany(node)) return true;
  if (ts.isJsxAttribute(parent))
    return /^(label|title|aria-label|placeholder|empty|shown|alt)$/.test(parent.name.getText());
  return (
    ts.isPropertyAssignment(parent) && parent.initializer === node && /^(text|word|does)$/.test(parent.name.getText())
  );
}

function isWordless(node) {
  for (let inner = node; inner.parent; inner = inner.parent) {
    const { parent } = inner;
    if (ts.isJsxAttribute(parent)) return wordless.attributes.test(parent.name.getText());
    if (ts.isTaggedTemplateExpression(parent)) return true;
    if (ts.isCallExpression(parent) || ts.isNewExpression(parent)) {
      if (parent.expression === inner) return false;
      return wordless.functions.test(parent.expression.getText().split('.').at(-1).replace(/<.*/s, ''));
    }
    if (ts.isPropertyAssignment(parent))
      return parent.name === inner || wordless.properties.test(parent.name.getText());
    if (ts.isStatement(parent) || ts.isFunctionLike(parent)) return false;
  }
  return false;
}

/** Rooms whose sentences reach the screen as they are made: findings, mends, reports, settings, refusals. */
const saidBelow = [
  'packages/core/src/builders',
  'packages/core/src/checks',
  'packages/core/src/codes',
  'packages/core/src/colours',
  'packages/core/src/document',
  'packages/core/src/edits',
  'packages/core/src/fit',
  'packages/core/src/formats',
  'packages/core/src/machine',
  'packages/core/src/mends',
  'packages/core/src/operations',
  'packages/core/src/pictures',
  'packages/core/src/plan',
  'packages/core/src/recipes',
  'packages/core/src/rows',
  'packages/core/src/schema',
  'packages/core/src/settings',
  'packages/core/src/text',
  'packages/core/src/timing',
  'packages/core/src/units',
  'packages/contracts/src',
  'packages/machines/src',
  'apps/server/src/book',
  'apps/server/src/colour-keys',
  'apps/server/src/common',
  'apps/server/src/files',
  'apps/server/src/hand',
  'apps/server/src/job-files',
  'apps/server/src/jobs',
  'apps/server/src/machines',
  'apps/server/src/runs',
  'apps/server/src/work',
];

/** Files that write for machines, or hold what is the shop's own. */
const noSpeech = /starting-materials|starting-keys|\.entity\.ts$|\.module\.ts$|controller\.ts$|writes\.ts$/;

/** What an expression is called in a sentence: the last name in it. */
function valueName(expression, used) {
  const names = expression.getText().match(/[a-z]\w*/gi) ?? [];
  const plain = names.filter(
    (word) =>
      !/^(toFixed|join|length|map|filter|format\w*|String|Math|round|abs|max|min|size|undefined|null)$/.test(word),
  );
  const base = (plain.at(-1) ?? 'value').replace(/^./, (letter) => letter.toLowerCase());
  let name = base;
  for (let i = 2; used.has(name); i++) name = `${base}${i}`;
  used.add(name);
  return name;
}

/** A text of the code below the interface as the catalogue has it, with `{{name}}` where a value stands; null where it is none. */
function sentenceOf(node) {
  if (ts.isStringLiteralLike(node)) return node.text;
  if (!ts.isTemplateExpression(node)) return null;
  const used = new Set();
  return node.templateSpans.reduce(
    (text, { expression, literal }) => `${text}{{${valueName(expression, used)}}}${literal.text}`,
    node.head.text,
  );
}

/** Whether a text below the interface is read by people: a sentence, or the name of something. */
function isRead(node, text) {
  const { parent } = node;
  const isNamed =
    ts.isPropertyAssignment(parent) &&
    parent.initializer === node &&
    /^(title|name|plural|words|text|label|long|short|why|unit|what)$/.test(parent.name.getText());
  const plain = text.replace(/{{\w+}}/g, '0');
  if (isOneOrMany(node)) return /\p{L}/u.test(plain);
  // Names of columns, orders to the database, and faults of ours that nobody is to see.
  if ((plain.match(/\b[a-z]+[A-Z]\w*/g) ?? []).length > 1) return false;
  if (
    /^(Compatible|Mesh|Shading|Font|Link|Popup|Widget|Pattern|Properties|Do|Continuous|cut|no bearing|dependency \w+)$/.test(
      plain,
    )
  )
    return false;
  if (/^(EXISTS|operator|annotation:|data:|(mark|dark|card|scan|watch|sheets) 0)/.test(plain)) return false;
  if (/^[a-z]+[A-Z]\w*$|^SELECT|^[a-z]\w+: |\n/.test(plain)) return false;
  if (isNamed) return /\p{L}{3}/u.test(plain);
  if (ts.isTemplateExpression(node) && /(^| )\p{L}{2,}[ ,.:]/u.test(plain) && !/[=<>[\]#]/.test(plain)) return true;
  return looksLikeWords(plain) || /^\p{Lu}\p{Ll}+[^\p{L}]*$/u.test(plain);
}

/** Single words that the code below the interface says by themselves. */
const loneWords = [
  ...['inside', 'outside', 'proven', 'copied', 'off', 'low', 'high', 'open', 'closed', 'done', 'stopped', 'refused'],
  ...['running', 'held', 'idle', 'alarm', 'homing', 'front', 'back', 'left', 'right', 'lengthwise', 'across'],
];

/** Whether a text is said of one, or of many: `countOf(3, 'item', 'items')`, `count === 1 ? 'it' : 'them'`. */
function isOneOrMany(node) {
  const { parent } = node;
  if (ts.isCallExpression(parent)) return parent.expression.getText() === 'countOf';
  return ts.isConditionalExpression(parent) && / === 1$/.test(parent.condition.getText()) && parent.condition !== node;
}

/** Every sentence that is made below the interface, in the order of the files, each once. */
export function coreSentences() {
  const found = new Set(loneWords);
  const paths = saidBelow
    .flatMap(filesIn)
    .filter((path) => path.endsWith('.ts') && !leftOut.test(path) && !noSpeech.test(path));
  for (const path of paths.sort()) {
    const source = ts.createSourceFile(path, readFileSync(join(root, path), 'utf8'), ts.ScriptTarget.Latest, true);
    const visit = (node) => {
      if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isTypeNode(node)) return;
      const text = sentenceOf(node);
      if (text !== null && isRead(node, text) && !isWordless(node)) found.add(text);
      ts.forEachChild(node, visit);
    };
    visit(source);
  }
  return [...found];
}

/** The catalogue as words/en.json has it: what the interface says, and what is made below it. */
export function catalogueText() {
  const asItIs = (texts) => Object.fromEntries(texts.map((text) => [text, text]));
  return `${JSON.stringify({ interface: asItIs(sentences()), core: asItIs(coreSentences()) }, null, 2)}\n`;
}
