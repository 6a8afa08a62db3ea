import { basename } from 'node:path';
import { fileURLToPath } from 'node:url';
import {
  addItems,
  blocks,
  boxOf,
  checkJob,
  formatDuration,
  gatherOutgoing,
  NotAShop,
  newJob,
  type PictureFile,
  planJob,
  prepareJob,
  reportOf,
  type Shop,
  setSheet,
  sheetAsStocked,
  shopFromJson,
  stepTitle,
  writeGcode,
  writeSvg,
} from '@lambent/core';
import { noteLine, type ReadingOptions, readBytes, readDrawing, write, writeLines } from './files.ts';
import { Unusable } from './unusable.ts';

export interface PlanOptions extends ReadingOptions {
  shop?: string;
  machine?: string;
  key?: string;
  material?: string;
  out?: string;
  svg?: string;
  report?: string;
  force?: boolean;
}

const demoShop = fileURLToPath(new URL('../../../demo/shop.json', import.meta.url));

/**
 * Plans one drawing and writes what was asked for.
 * @returns the exit status: 0, or 1 when a finding blocks
 * @throws Unusable when the file or the words cannot be used
 */
export async function plan(file: string, options: PlanOptions): Promise<number> {
  const shop = await readShop(options.shop ?? demoShop);
  const machine = choose(shop.machines, options.machine, 'machine');
  const key = choose(shop.keys, options.key, 'colour key');
  const material = choose(shop.materials, options.material, 'material');
  const { reading, items } = await readDrawing(file, options);

  const job = setSheet(
    addItems(newJob(machine.id, key.id), items, reading.drawing.groups),
    sheetAsStocked('sheet-1', material, machine),
  );
  const prepared = prepareJob(job, shop);
  const burnPlan = planJob(prepared);
  const findings = checkJob(prepared, burnPlan);
  const blocked = blocks(findings);
  const source = {
    file: basename(file),
    format: reading.format,
    declaredWidthMm: reading.size.pageWidthMm,
    declaredHeightMm: reading.size.pageHeightMm,
    itemCount: items.filter((item) => !item.hidden).length,
    warnings: reading.notes
      .filter(({ kind }) => kind !== 'taken')
      .map(({ code, message, count }) => ({ code, message, count })),
  };
  if (options.svg) {
    const bed = boxOf(0, 0, machine.bedWidth, machine.bedHeight);
    const all = { paints: 'as-came', guides: true, only: null, onlyBurnt: false } as const;
    const pictures = new Map(reading.pictures.map((picture): [string, PictureFile] => [picture.id, picture]));
    await write(options.svg, writeSvg(gatherOutgoing(prepared, bed, all, pictures)));
  }
  if (options.report) {
    const report = reportOf(source, prepared, burnPlan, findings);
    await write(options.report, `${JSON.stringify(report, null, 2)}\n`);
  }
  const writesProgram = options.out !== undefined && (!blocked || options.force);
  if (options.out && writesProgram) await writeLines(options.out, writeGcode(burnPlan, source.file));

  const say = (line: string) => process.stdout.write(`${line}\n`);
  say(
    `${source.file}: ${source.itemCount} items on ${machine.name}, ${material.name} ${material.thicknessMm} mm, ${key.name}`,
  );
  for (const warning of source.warnings) say(`  reading: ${noteLine(warning)}`);
  for (const step of burnPlan.steps) {
    say(`  ${stepTitle(step)}: ${formatDuration(step.timeS)}`);
  }
  say(`  in all ${formatDuration(burnPlan.timeS)}`);
  for (const { level, message } of findings) say(`  ${level}: ${message}`);
  if (options.out && !writesProgram)
    say('  No program was written, because a finding blocks; --force writes it all the same.');
  return blocked ? 1 : 0;
}

function choose<T extends { id: string }>(all: readonly T[], id: string | undefined, what: string): T {
  const chosen = id === undefined ? all[0] : all.find((one) => one.id === id);
  if (!chosen) {
    throw new Unusable(`The shop has no ${what} “${id}”; it has ${all.map((one) => one.id).join(', ')}.`);
  }
  return chosen;
}

async function readShop(path: string): Promise<Shop> {
  const text = await readBytes(path);
  try {
    return shopFromJson(JSON.parse(text.toString('utf8')));
  } catch (error) {
    if (error instanceof NotAShop) throw new Unusable(`${path}: ${error.message}`);
    if (error instanceof SyntaxError) throw new Unusable(`${path} is not JSON: ${error.message}.`);
    throw error;
  }
}
