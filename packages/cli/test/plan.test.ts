import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from '@jest/globals';
import type { Report } from '@lambent/core/checks';
import { type CardWish, cardLayerId, type Item, jobToJson, newJob } from '@lambent/core/document';
import { addCard } from '@lambent/core/edits';
import { encodePixels } from '@lambent/core/formats';
import { cardLayers, layCard } from '@lambent/core/recipes';

const root = fileURLToPath(new URL('../../../', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'lambent-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));

const inFolder = (name: string) => join(folder, name);
const markers = join(root, 'demo/drawings/row-markers.svg');
const run = (...words: string[]) =>
  spawnSync(process.execPath, [join(root, 'packages/cli/bin/lambent.js'), ...words], { encoding: 'utf8' });
const write = (name: string, text: string) => {
  writeFileSync(inFolder(name), text);
  return inFolder(name);
};
const drawing = (body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100">${body}</svg>`;
const square = '<rect x="20" y="20" width="30" height="40" fill="none" stroke="#D0481E" stroke-width="0.1"/>';

test('plans a drawing: report, program and what was understood', () => {
  const { status, stdout } = run(
    'plan',
    markers,
    '--out',
    inFolder('a.gcode'),
    '--svg',
    inFolder('a.svg'),
    '--report',
    inFolder('a.json'),
  );
  expect(status).toBe(0);
  expect(stdout).toContain('77 items on Wren, Birch plywood 3 mm, Tern Lane house key');
  const report = JSON.parse(readFileSync(inFolder('a.json'), 'utf8')) as Report;
  expect(report.source).toMatchObject({
    file: 'row-markers.svg',
    format: 'svg',
    declaredWidthMm: 600,
    declaredHeightMm: 400,
    itemCount: 77,
    warnings: [],
  });
  expect(report.bounds).toEqual({ x: 32, y: 36, width: 344, height: 310 });
  expect(report.paints).toContainEqual({ stroke: '#D0481E', strokeWidthMm: 0.1, fill: null, items: 22, layer: 'Cut' });
  expect(report.paints).toContainEqual({
    stroke: null,
    strokeWidthMm: null,
    fill: '#5B3FA0',
    items: 11,
    layer: 'Engrave',
  });
  const cut = report.layers.find(({ name }) => name === 'Cut');
  // Eleven outlines with two rounded corners and a point, and eleven holes of 3 mm radius.
  const outline = 36 - 10 + 5 * Math.PI + 2 * 105 + 2 * Math.hypot(18, 40);
  expect(cut?.lengthMm).toBeCloseTo(11 * (outline + 6 * Math.PI), 0);
  expect(cut).toMatchObject({ operation: 'cut', items: 22, powerPercent: 62, speedMmPerS: 14, passes: 1 });
  expect(report.timeS).toBeCloseTo(
    report.layers.reduce((sum, layer) => sum + layer.timeS, 0),
    -1,
  );
  expect(report.findings.map(({ code }: { code: string }) => code)).toEqual(['slow-scan', 'long-engraving']);
  expect(readFileSync(inFolder('a.gcode'), 'utf8')).toMatch(/^\(Lambent: row-markers.svg\)\n.*\nG21\nG90\nM4S0\n/);
  expect(readFileSync(inFolder('a.svg'), 'utf8').match(/<path /g)).toHaveLength(77);
});

test('the same file means something else under another key, and takes other times on another machine', () => {
  run('plan', markers, '--key', 'evening-class', '--machine', 'curlew', '--report', inFolder('b.json'));
  const report = JSON.parse(readFileSync(inFolder('b.json'), 'utf8')) as Report;
  expect(report.paints.map(({ stroke, fill, layer }) => [stroke ?? fill, layer])).toEqual([
    ['#5B3FA0', 'Engrave'],
    ['#00806A', 'Cut'],
    ['#D0481E', 'Score'],
  ]);
  expect(report.layers.find(({ name }) => name === 'Cut')).toMatchObject({
    items: 44,
    powerPercent: 55,
    speedMmPerS: 22,
  });
});

describe('when a finding blocks', () => {
  const blocked = write('blocked.svg', drawing(`${square}<path d="M0 0h9" fill="none" stroke="#123456"/>`));

  test('the report is written, the program is not, and the exit is 1', () => {
    const { status, stdout } = run('plan', blocked, '--out', inFolder('c.gcode'), '--report', inFolder('c.json'));
    expect(status).toBe(1);
    expect(stdout).toContain('No program was written');
    expect(existsSync(inFolder('c.gcode'))).toBe(false);
    const { findings } = JSON.parse(readFileSync(inFolder('c.json'), 'utf8')) as Report;
    expect(findings[0]).toMatchObject({ code: 'colour-without-meaning', level: 'blocks', items: 1 });
  });

  test('--force writes the program all the same', () => {
    expect(run('plan', blocked, '--out', inFolder('d.gcode'), '--force').status).toBe(1);
    expect(readFileSync(inFolder('d.gcode'), 'utf8')).toContain('G1X50F');
  });
});

describe('what cannot be used is said in one sentence, with exit 2', () => {
  const sound = write('sound.svg', drawing(square));
  test.each([
    ['a file that is not there', [inFolder('nowhere.svg')], /nowhere.svg cannot be read: there is no such file/],
    [
      'a file that is no drawing',
      [write('text.svg', 'hello')],
      /text.svg: The file is none of the formats that are read here/,
    ],
    ['an unknown machine', [sound, '--machine', 'heron'], /no machine “heron”; it has wren, curlew, dunlin/],
    ['an unknown key', [sound, '--key', 'x'], /no colour key “x”/],
    ['an unknown material', [sound, '--material', 'x'], /no material “x”/],
    ['a shop that is no JSON', [sound, '--shop', write('shop1.json', '{')], /shop1.json is not JSON/],
    [
      'a shop without machines',
      [sound, '--shop', write('shop2.json', '{"machines":[]}')],
      /machines must have at least one entry/,
    ],
    ['a folder that is not there', [sound, '--out', inFolder('no/where.gcode')], /cannot be written: there is no such/],
    ['an unknown option', [sound, '--loud'], /unknown option '--loud'/],
    ['no file at all', [], /missing required argument/],
  ])('%s', (_, words, sentence) => {
    const { status, stderr } = run('plan', ...words);
    expect(status).toBe(2);
    expect(stderr).toMatch(sentence);
    expect(stderr.trim().split('\n')).toHaveLength(1);
  });
});

test('--version says which it is', () => {
  const { version } = JSON.parse(readFileSync(join(root, 'packages/cli/package.json'), 'utf8')) as { version: string };
  expect(run('--version')).toMatchObject({ status: 0, stdout: `${version}\n`, stderr: '' });
});

test('--help says what there is', () => {
  const { status, stdout } = run('--help');
  expect(status).toBe(0);
  expect(stdout).toContain('plan');
  expect(run('plan', '--help').stdout).toContain('Exit status');
});

describe('convert', () => {
  const panel =
    '0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\nHoles\n10\n5\n20\n5\n40\n2\n0\nLINE\n8\nPanel\n11\n10\n21\n5\n0\nENDSEC\n0\nEOF\n';

  test.each(['svg', 'pdf', 'dxf'])('a DXF in inches to %s and back to a plan, at its true size', (format) => {
    const from = write('panel.dxf', panel);
    const to = inFolder(`panel.${format}`);
    const { status, stdout } = run('convert', from, to, '--unit', 'in');
    expect(status).toBe(0);
    expect(stdout).toContain('2 items written');
    run('plan', to, '--report', inFolder('back.json'), '--force');
    const { source } = JSON.parse(readFileSync(inFolder('back.json'), 'utf8')) as Report;
    expect(source).toMatchObject({ format, itemCount: 2 });
    expect(source.declaredWidthMm).toBeCloseTo(254, 3);
  });

  test('a known width sets the size', () => {
    const to = inFolder('sized.svg');
    expect(run('convert', write('panel.dxf', panel), to, '--width', '4 in').status).toBe(0);
    expect(readFileSync(to, 'utf8')).toContain('width="101.6mm"');
  });

  test.each([
    [['panel.dxf', 'out.doc'], 'ends in .svg, .dxf or .pdf'],
    [['panel.dxf', 'out.svg', '--unit', 'furlong'], '--unit may be mm'],
    [['panel.dxf', 'out.svg', '--unit', 'in', '--width', '3'], 'Give one of'],
    [['panel.dxf', 'out.svg', '--width', 'wide'], '--width must be a length'],
    [['panel.dxf', 'out.svg', '--page', '0'], '--page must be'],
  ])('%j is refused in one sentence', (words, sentence) => {
    write('panel.dxf', panel);
    const { status, stderr } = run('convert', inFolder(words[0]), inFolder(words[1]), ...words.slice(2));
    expect(status).toBe(2);
    expect(stderr).toContain(sentence);
    expect(stderr.trim().split('\n')).toHaveLength(1);
  });
});

describe('keys and runs', () => {
  test('a key comes from a file, and near misses are reported with how far off they are', () => {
    const file = write('near.svg', drawing(square.replace('#D0481E', '#C8552E')));
    const { status } = run('plan', file, '--report', inFolder('near.json'));
    expect(status).toBe(1);
    const report = JSON.parse(readFileSync(inFolder('near.json'), 'utf8')) as Report;
    expect(report.nearMisses).toEqual([
      { kind: 'near', stroke: '#C8552E', fill: null, meant: '#D0481E', layer: 'Cut', distance: 2.8979, items: 1 },
    ]);
    const house = JSON.parse(readFileSync(join(root, 'demo/shop.json'), 'utf8')).keys[0];
    const wider = { ...house, rules: house.rules.map((rule: object) => ({ ...rule, tolerance: 4 })) };
    const key = write('wider.json', JSON.stringify(wider));
    expect(run('plan', file, '--key', key, '--report', inFolder('wide.json')).status).toBe(0);
    expect(JSON.parse(readFileSync(inFolder('wide.json'), 'utf8')).nearMisses).toEqual([]);
    const none = run('plan', file, '--key', write('none.json', '{"rules":3}'));
    expect([none.status, none.stderr]).toEqual([2, expect.stringContaining('none.json: This is not a colour key')]);
    expect(run('plan', file, '--key', './not-there.json').stderr).toContain('cannot be read');
  });

  test('a stored job is planned run by run', () => {
    const job = (({ runs, ...rest }) => ({
      ...rest,
      runs: [
        { ...runs[0], name: 'Holder', off: ['score'] },
        { ...runs[0], id: 'b', name: 'Marks', off: ['cut'] },
      ],
    }))(
      jobToJson({
        ...newJob('wren', 'house'),
        drawing: { items: [item('#D0481E', 'a'), item('#00806A', 'b')], groups: [] },
      }),
    );
    const file = write('job.json', JSON.stringify({ document: job }));
    const steps = (...words: string[]) => run('plan', file, ...words).stdout.match(/^ {2}(Cut|Score)[^:]*/gm);
    // There is no sheet, so nothing has a recipe: what is said of the run is in the first line.
    expect(run('plan', file, '--run', 'Marks').stdout).toContain(
      '2 items on Wren, no sheet, Tern Lane house key, Marks',
    );
    expect(steps()).toBeNull();
    expect(run('plan', file, '--run', 'Nobody').stderr).toContain(
      'There is no run “Nobody”; there is “Holder”, “Marks”.',
    );
    expect(run('plan', write('bad.json', '{"document":{}}')).stderr).toContain('bad.json is not a job');
  });
});

function item(stroke: string, id: string): Item {
  return {
    id,
    name: null,
    shape: { kind: 'rectangle', x: 10, y: 10, width: 20, height: 10, rx: 0, ry: 0 },
    matrix: [1, 0, 0, 1, 0, 0],
    paint: { stroke, strokeWidthMm: 0.1, fill: null },
    fillRule: 'evenodd',
    groupId: null,
    pinned: null,
    hidden: false,
  };
}

test('a kerf grows what is cut, for this plan only, and may not be what is no length', () => {
  const file = write('kerf.svg', drawing(square));
  const widthWith = (...words: string[]) => {
    const { status } = run('plan', file, '--out', inFolder('kerf.gcode'), ...words);
    const program = readFileSync(inFolder('kerf.gcode'), 'utf8');
    const lit = [...program.matchAll(/^(?!G0).*?X(-?[\d.]+)/gm)].map(([, x]) => Number(x));
    return [status, Math.min(...lit), Math.max(...lit)];
  };
  expect(widthWith()).toEqual([0, 20, 50]);
  expect(widthWith('--kerf', '0.2')).toEqual([0, 19.9, 50.1]);
  const { status, stderr } = run('plan', file, '--kerf', 'thin');
  expect([status, stderr]).toEqual([2, 'lambent: --kerf must be a length such as 0.15mm, and not “thin”.\n']);
});

describe('settings from the book', () => {
  const path = write('book.svg', drawing(square));
  const cutOf = (...words: string[]) => {
    const { status, stdout } = run('plan', path, '--report', inFolder('book.json'), ...words);
    const report = JSON.parse(readFileSync(inFolder('book.json'), 'utf8')) as Report;
    return { status, stdout, report, cut: report.layers.find(({ name }) => name === 'Cut') };
  };

  test('a recipe is said with its evidence', () => {
    const { status, stdout, cut } = cutOf('--material', 'birch-ply-4');
    expect(status).toBe(0);
    expect(cut).toMatchObject({ powerPercent: 70, speedMmPerS: 10 });
    expect(cut?.source).toEqual({ kind: 'proven', from: 'Birch plywood 4 mm, Wren', doubt: null });
    expect(stdout).toContain('Cut: 70 %, 10 mm/s; proven: Birch plywood 4 mm, Wren');
  });

  test('for another thickness it is worked out from its neighbours, with its doubt, and a warning', () => {
    const { status, stdout, report, cut } = cutOf('--material', 'birch-ply-4', '--thickness', '5mm');
    expect(status).toBe(0);
    expect(cut?.source).toMatchObject({
      kind: 'worked out',
      from: expect.stringMatching(/^Birch plywood 3 and 4 mm, Wren/),
    });
    const speed = cut?.speedMmPerS ?? 0;
    const { least, most } = cut?.source?.doubt ?? { least: 0, most: 0 };
    expect(speed).toBeGreaterThan(6);
    expect(speed).toBeLessThan(10);
    expect(least).toBeLessThan(speed);
    expect(most).toBeGreaterThan(speed);
    expect(report.findings.find(({ code }) => code === 'worked-out')?.level).toBe('warns');
    expect(stdout).toContain('worked out from Birch plywood 3 and 4 mm, Wren');
    expect(cutOf('--material', 'birch-ply-4', '--thickness', '4.2').cut?.source?.kind).toBe('proven');
  });

  test('without basis there is no number', () => {
    const { status, report, cut } = cutOf('--material', 'slate-6');
    expect([status, cut?.source, cut?.powerPercent]).toEqual([1, null, null]);
    expect(report.findings.map(({ code }) => code)).toContain('no-recipe');
    expect(cutOf('--material', 'birch-ply-4', '--thickness', '30').status).toBe(1);
  });

  test('a thickness that is none is refused', () => {
    const { status, stderr } = run('plan', path, '--thickness', 'thick');
    expect(status).toBe(2);
    expect(stderr).toContain('--thickness must be a length');
  });

  test('forbidden stock is not planned, not even by force or with settings by hand', () => {
    const out = inFolder('poison.gcode');
    const { status, stdout, report } = cutOf('--material', 'pvc-sheet', '--force', '--out', out);
    expect(status).toBe(1);
    expect(existsSync(out)).toBe(false);
    expect(stdout).toContain('must never be lasered, and --force does not change that');
    expect(report.timeS).toBe(0);
  });
});

test('a test card in a job is planned as its own run, each cell with its settings, and nothing else', () => {
  const wish: CardWish = {
    operation: 'cut',
    across: { setting: 'speedMmPerS', from: 10, to: 20, steps: 3 },
    down: null,
    rest: { powerPercent: 50 },
    words: { powerPercent: 8, speedMmPerS: 150 },
    cellMm: 8,
    gapMm: 2,
  };
  const card = layCard(wish);
  const plain = { name: null, fillRule: 'nonzero' as const, groupId: null, hidden: false };
  const paint = { stroke: '#D0481E', strokeWidthMm: 0.1, fill: null };
  const cells = card.cells.map(
    ({ key, x, y }): Item => ({
      ...plain,
      id: key,
      paint,
      shape: { kind: 'rectangle', x: 0, y: 0, width: 8, height: 8, rx: 0, ry: 0 },
      matrix: [1, 0, 0, 1, 20 + x, 20 + y],
      pinned: cardLayerId('a', key),
    }),
  );
  const work: Item = { ...cells[0], id: 'work', pinned: null, matrix: [1, 0, 0, 1, 200, 200] };
  const sheet = { id: 's', materialId: 'birch-ply-3', x: 0, y: 0, width: 420, height: 360, margin: 3 };
  const start = newJob('wren', 'house');
  const laid = { id: 'a', runId: 'r', wish, materialId: 'birch-ply-3', thicknessMm: 3, marks: {}, best: null };
  const job = addCard(
    { ...start, sheets: [sheet], drawing: { items: [work], groups: [] } },
    laid,
    cardLayers(card, wish, 'a'),
    cells,
    { id: 'g', name: 'Card', parentId: null },
  );
  const file = write('card.json', JSON.stringify(jobToJson(job)));
  const burnt = run('plan', file, '--run', 'Test card', '--out', inFolder('card.gcode'));
  expect(burnt.status).toBe(0);
  const program = readFileSync(inFolder('card.gcode'), 'utf8');
  // From the mildest cell to the fiercest: 20, 15, 10 mm/s at half the power.
  expect([...program.matchAll(/F(\d+)S(\d+)/g)].map(([, f, s]) => [f, s])).toEqual([
    ['1200', '500'],
    ['900', '500'],
    ['600', '500'],
  ]);
  expect(program).not.toContain('X200');
  const rest = run('plan', file, '--out', inFolder('rest.gcode'));
  expect(rest.status).toBe(0);
  expect([...readFileSync(inFolder('rest.gcode'), 'utf8').matchAll(/F(\d+)S(\d+)/g)]).toHaveLength(1);
});

describe('a picture', () => {
  // From black to white, one pixel each.
  const greys = [0, 51, 204, 255];
  const png = async () => {
    const rgb = new Uint8Array(greys.flatMap((grey) => [grey, grey, grey]));
    writeFileSync(inFolder('greys.png'), await encodePixels({ width: 4, height: 1, rgb }));
    return inFolder('greys.png');
  };
  const photoOf = async (...words: string[]) => {
    const said = run(
      'plan',
      await png(),
      ...words,
      '--report',
      inFolder('photo.json'),
      '--out',
      inFolder('photo.gcode'),
    );
    const report = said.status === 2 ? null : (JSON.parse(readFileSync(inFolder('photo.json'), 'utf8')) as Report);
    return { ...said, report };
  };

  test('is planned as a photo where a width says so: a patch burns by 1 − grey ÷ 255', async () => {
    const { report } = await photoOf('--photo-width', '40', '--grain', 'true-greys', '--spacing', '0.2mm');
    expect(report?.layers).toMatchObject([
      { name: 'Photo', operation: 'photo', items: 1, lineSpacingMm: 0.2, grain: 'true-greys', areaMm2: 400 },
    ]);
    expect(report?.bounds).toMatchObject({ width: 40, height: 10 });
    const program = readFileSync(inFolder('photo.gcode'), 'utf8');
    const [black, dark, light] = greys.map((grey) =>
      Number(((report?.layers[0].powerPercent ?? 0) * 10 * (1 - grey / 255)).toFixed(1)),
    );
    const powers = new Set([...program.matchAll(/S([\d.]+)/g)].map(([, power]) => Number(power)));
    expect(powers).toEqual(new Set([0, black, dark, light]));
  });

  test('is diffused where nothing else is said, and its lines are as the recipe says', async () => {
    const { report } = await photoOf('--photo-width', '1in');
    expect(report?.layers).toMatchObject([{ operation: 'photo', lineSpacingMm: 0.1, grain: 'diffused' }]);
    expect(report?.bounds).toMatchObject({ width: 25.4 });
  });

  test('is only shown without, and said not to burn', async () => {
    const { report } = await photoOf();
    expect(report?.layers).toEqual([]);
    expect(report?.findings.map(({ code }) => code)).toEqual(['nothing-to-burn', 'picture-not-burnt']);
  });

  test.each([
    [['--photo-width', 'wide'], '--photo-width must be a length such as 120mm, and not “wide”.'],
    [['--photo-width', '40', '--width', '50mm'], 'Give --photo-width or --width'],
    [
      ['--photo-width', '40', '--grain', 'coarse'],
      '--grain may be diffused, blue-noise, dots, lines, threshold, true-greys, and not “coarse”.',
    ],
    [['--spacing', '-1'], '--spacing must be a length such as 120mm, and not “-1”.'],
  ])('%p cannot be used', async (words, sentence) => {
    const { status, stderr } = await photoOf(...words);
    expect([status, stderr]).toEqual([2, expect.stringContaining(sentence)]);
  });

  test('a drawing is none', () => {
    const { status, stderr } = run('plan', markers, '--photo-width', '40');
    expect([status, stderr]).toEqual([2, expect.stringContaining('row-markers.svg is none')]);
  });
});
