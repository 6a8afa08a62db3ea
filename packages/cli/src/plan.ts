import { open, readFile, writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { fileURLToPath } from 'node:url';
import {
  addItems,
  blocks,
  checkJob,
  FileRefused,
  formatDuration,
  largestFile,
  NotAShop,
  newJob,
  planJob,
  prepareJob,
  readSvg,
  reportOf,
  type Shop,
  type SvgReading,
  setSheet,
  sheetAsStocked,
  shopFromJson,
  stepTitle,
  writeGcode,
  writeSvg,
} from '@lambent/core';
import { fileTrouble, Unusable } from './unusable.ts';

export interface PlanOptions {
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
  const reading = await readDrawing(file);

  const { items, groups } = reading.drawing;
  const job = setSheet(
    addItems(newJob(machine.id, key.id), items, groups),
    sheetAsStocked('sheet-1', material, machine),
  );
  const prepared = prepareJob(job, shop);
  const burnPlan = planJob(prepared);
  const findings = checkJob(prepared, burnPlan);
  const blocked = blocks(findings);
  const source = {
    file: basename(file),
    format: 'svg',
    declaredWidthMm: reading.declaredWidthMm,
    declaredHeightMm: reading.declaredHeightMm,
    itemCount: items.length,
    warnings: reading.warnings.map(({ code, message }) => ({ code, message })),
  };
  if (options.svg) await write(options.svg, writeSvg(job.drawing, machine.bedWidth, machine.bedHeight));
  if (options.report) {
    const report = reportOf(source, prepared, burnPlan, findings);
    await write(options.report, `${JSON.stringify(report, null, 2)}\n`);
  }
  const writesProgram = options.out !== undefined && (!blocked || options.force);
  if (options.out && writesProgram) await writeLines(options.out, writeGcode(burnPlan, source.file));

  const say = (line: string) => process.stdout.write(`${line}\n`);
  say(
    `${source.file}: ${items.length} items on ${machine.name}, ${material.name} ${material.thicknessMm} mm, ${key.name}`,
  );
  for (const { message } of source.warnings) say(`  reading: ${message}`);
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
  const text = await read(path);
  try {
    return shopFromJson(JSON.parse(text.toString('utf8')));
  } catch (error) {
    if (error instanceof NotAShop) throw new Unusable(`${path}: ${error.message}`);
    if (error instanceof SyntaxError) throw new Unusable(`${path} is not JSON: ${error.message}.`);
    throw error;
  }
}

async function readDrawing(path: string): Promise<SvgReading> {
  const bytes = await read(path);
  if (bytes.length > largestFile) {
    throw new Unusable(
      `${path} is ${Math.round(bytes.length / 1024 / 1024)} MB; Lambent takes drawings up to ${largestFile / 1024 / 1024} MB.`,
    );
  }
  let next = 0;
  try {
    return readSvg(bytes.toString('utf8'), () => `i${++next}`);
  } catch (error) {
    if (error instanceof FileRefused) throw new Unusable(`${path}: ${error.message}`);
    throw error;
  }
}

async function read(path: string): Promise<Buffer> {
  try {
    return await readFile(path);
  } catch (error) {
    throw new Unusable(`${path} cannot be read: ${fileTrouble(error)}.`);
  }
}

async function write(path: string, text: string): Promise<void> {
  try {
    await writeFile(path, text);
  } catch (error) {
    throw new Unusable(`${path} cannot be written: ${fileTrouble(error)}.`);
  }
}

/** Writes lines as they are made, some 64 KB at a time. */
async function writeLines(path: string, lines: Iterable<string>): Promise<void> {
  try {
    const handle = await open(path, 'w');
    try {
      let chunk = '';
      for (const line of lines) {
        chunk += `${line}\n`;
        if (chunk.length > 65536) {
          await handle.write(chunk);
          chunk = '';
        }
      }
      await handle.write(chunk);
    } finally {
      await handle.close();
    }
  } catch (error) {
    throw new Unusable(`${path} cannot be written: ${fileTrouble(error)}.`);
  }
}
