import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from '@jest/globals';
import { jobToJson, newJob } from '@lambent/core/document';
import { changeRun } from '@lambent/core/edits';
import { readMoves } from '../../core/src/fixtures/program-reader.ts';

const command = fileURLToPath(new URL('../bin/lambent.js', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'lambent-landing-'));
afterAll(() => rmSync(folder, { recursive: true }));

const inFolder = (name: string) => join(folder, name);
const run = (...words: string[]) => spawnSync(process.execPath, [command, ...words], { encoding: 'utf8' });
const write = (name: string, text: string) => {
  writeFileSync(inFolder(name), text);
  return inFolder(name);
};
const drawing = (body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100">${body}</svg>`;
const square = '<rect x="20" y="20" width="30" height="40" fill="none" stroke="#D0481E" stroke-width="0.1"/>';

describe('where a run lands', () => {
  const file = write('lands.svg', drawing(square));
  const litBox = (...words: string[]) => {
    const { status, stderr, stdout } = run('plan', file, '--out', inFolder('lands.gcode'), ...words);
    if (status !== 0) return stderr || stdout;
    const lit: { x: number; y: number }[] = [];
    for (const move of readMoves(readFileSync(inFolder('lands.gcode'), 'utf8').split('\n')))
      if (move.lit) lit.push(move);
    const [xs, ys] = [lit.map(({ x }) => x), lit.map(({ y }) => y)];
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  };

  test('is as drawn, or as the words say: at the head, at a mark, at its sheet', () => {
    expect(litBox()).toEqual([20, 20, 50, 60]);
    expect(litBox('--at', 'head', '200,100')).toEqual([200, 100, 230, 140]);
    expect(litBox('--at', 'head', '200,100', 'middle')).toEqual([185, 80, 215, 120]);
    expect(litBox('--at', 'mark', '200,100', 'bottom-right')).toEqual([170, 60, 200, 100]);
    expect(litBox('--at', 'sheet')).not.toEqual([20, 20, 50, 60]);
  });

  test('or by two marks that were touched', () => {
    expect(litBox('--marks', '20,20=120,40', '50,20=120,70')).toEqual([80, 40, 120, 70]);
    expect(litBox('--marks', '20,20=100,40', '50,20=160,40', '--scaled')).toEqual([100, 40, 160, 120]);
  });

  test('is never as drawn where the words make no sense', () => {
    for (const [words, says] of [
      [['--at', 'head'], '--at head takes a place in mm, such as 120,80, and not “nothing”'],
      [['--at', 'head', '1;2'], 'and not “1;2”'],
      [['--at', 'head', '1,2', 'inside'], 'and not “inside”'],
      [['--at', 'moon', '1,2'], '--at takes head, mark or sheet, and not “moon”'],
      [['--marks', '1,1=2,2'], '--marks takes two marks'],
      [['--marks', '1,1=2,2', '3,3'], 'and not “3,3”'],
      [['--scaled'], '--scaled goes with --marks'],
      [['--at', 'sheet', '--marks', '1,1=2,2', '3,3=4,4'], 'give --at or --marks, and not both'],
    ] as const) {
      expect(litBox(...words)).toContain(says);
    }
    expect(litBox('--marks', '20,20=120,40', '20.5,20=120,70')).toContain('Its two points were not both touched');
  });

  test('of a stored job that lands at the head has to be said', () => {
    const landing = { kind: 'head', u: 0, v: 0 } as const;
    const first = newJob('wren', 'house');
    const stored = write('head.json', JSON.stringify(jobToJson(changeRun(first, first.runs[0].id, { landing }))));
    const { status, stderr } = run('plan', stored);
    expect([status, stderr]).toEqual([
      2,
      'lambent: Run 1 lands at the head: say where that stands, such as --at head 120,80.\n',
    ]);
  });
});
