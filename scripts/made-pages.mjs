import { catalogue } from '@lambent/core/checks';
import { operationOf, operations } from '@lambent/core/operations';
import { allSettings, settingsOf } from '@lambent/core/settings';

/** @returns by the name of its file, each page of docs/ that is made from what the code defines, as Markdown */
export function madePages() {
  return { 'settings.md': settingsPage(), 'checks.md': checksPage() };
}

function settingsPage() {
  const rows = [...allSettings()].map(([name, { words, unit, usual, column, concerns }]) => [
    words,
    unit,
    usual === undefined ? 'has to be said' : usual === null ? 'found' : usualWords(usual),
    operations
      .filter((operation) => settingsOf(operation).includes(name))
      .map((operation) => operationOf(operation).name),
    concerns,
    `\`${name}\``,
    column.name,
  ]);
  return `# Settings of a layer

Made by \`npm run docs\` from \`packages/core/src/settings/table.ts\`: a setting is one entry there, and what burns by it.

${tableOf(['setting', 'unit', 'usual', 'operations', 'concerns', 'in documents', 'in the book’s table'], rows)}
`;
}

function checksPage() {
  const weights = { blocks: 'blocks', warns: 'warns', notes: 'is noted' };
  const rows = Object.entries(catalogue).map(([code, { title, levels, why, mends }]) => [
    title,
    levels.map((level) => weights[level]).join(' or '),
    why,
    mends.join(', '),
    `\`${code}\``,
  ]);
  return `# What Check finds

Made by \`npm run docs\` from \`packages/core/src/checks/catalogue.ts\`. What blocks keeps the job from the machine; what
warns or is noted may be accepted with a reason, and comes back when what it is about changes. A mend is a named edit.

${tableOf(['finding', 'weight', 'why it matters', 'mends', 'code'], rows)}
`;
}

const usualWords = (value) => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value));

function tableOf(head, rows) {
  const line = (cells) => `| ${cells.map((cell) => (Array.isArray(cell) ? cell.join(', ') : cell)).join(' | ')} |`;
  return [line(head), line(head.map(() => '---')), ...rows.map(line)].join('\n');
}
