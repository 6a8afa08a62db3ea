import { basename } from 'node:path';
import { fileURLToPath } from 'node:url';
import { blocks, checkJob, type ReportSource, reportOf } from '@lambent/core/checks';
import { type ColourKey, keyFromText, NotAKey } from '@lambent/core/colours';
import { type JobDocument, jobFromJson, NotADrawing, newJob, type Run } from '@lambent/core/document';
import { addItems, changeSetting, setSheet } from '@lambent/core/edits';
import { gatherOutgoing, type PictureFile, writeGcode, writeSvg } from '@lambent/core/formats';
import { boxOf } from '@lambent/core/geometry';
import { separates } from '@lambent/core/operations';
import { planJob, prepareJob, stepTitle } from '@lambent/core/plan';
import { type AppliedSettings, NotAShop, type Shop, sheetAsStocked, shopFromJson } from '@lambent/core/recipes';
import { formatDuration, parseLength } from '@lambent/core/units';
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
  run?: string;
  kerf?: string;
  thickness?: string;
}

const demoShop = fileURLToPath(new URL('../../../demo/shop.json', import.meta.url));

/**
 * Plans one drawing and writes what was asked for.
 * @returns the exit status: 0, or 1 when a finding blocks
 * @throws Unusable when the file or the words cannot be used
 */
export async function plan(file: string, options: PlanOptions): Promise<number> {
  const shop = await readShop(options.shop ?? demoShop);
  const { job, source, pictures } = await openFile(file, options, shop);
  const machine = choose(shop.machines, job.machineId, 'machine');
  const key = await chooseKey(shop, options.key ?? job.keyId);
  const run = runNamed(job.runs, options.run);
  const lists = { ...shop, keys: [key, ...shop.keys] };
  const keyed = { ...job, keyId: key.id };
  const wanted = options.kerf === undefined ? keyed : withKerf(keyed, lists, options.kerf);
  const prepared = prepareJob(wanted, lists, { runId: run.id });
  const { material } = prepared;
  const burnPlan = planJob(prepared);
  const findings = checkJob(prepared, burnPlan);
  const blocked = blocks(findings);
  if (options.svg) {
    const bed = boxOf(0, 0, machine.bedWidth, machine.bedHeight);
    const all = { paints: 'as-came', guides: true, only: null, onlyBurnt: false } as const;
    await write(options.svg, writeSvg(gatherOutgoing(prepared, bed, all, pictures)));
  }
  if (options.report) {
    const report = reportOf(source, prepared, burnPlan, findings);
    await write(options.report, `${JSON.stringify(report, null, 2)}\n`);
  }
  const isForbidden = findings.some(({ code }) => code === 'forbidden-stock');
  const writesProgram = options.out !== undefined && !isForbidden && (!blocked || options.force);
  if (options.out && writesProgram) await writeLines(options.out, writeGcode(burnPlan, source.file));

  const say = (line: string) => process.stdout.write(`${line}\n`);
  say(
    `${source.file}: ${source.itemCount} items on ${machine.name}, ${material ? `${material.name} ${material.thicknessMm} mm` : 'no sheet'}, ${key.name}${job.runs.length > 1 ? `, ${run.name}` : ''}`,
  );
  for (const warning of source.warnings) say(`  reading: ${noteLine(warning)}`);
  for (const step of burnPlan.steps) {
    say(`  ${stepTitle(step)}: ${formatDuration(step.timeS)}`);
  }
  for (const { layer, burns, applied } of prepared.layers) {
    if (burns && applied.settings) say(`  ${layer.name}: ${settingsInWords(applied)}`);
  }
  say(`  in all ${formatDuration(burnPlan.timeS)}`);
  for (const { level, message } of findings) say(`  ${level}: ${message}`);
  if (options.out && !writesProgram)
    say(
      isForbidden
        ? '  No program was written: this stock must never be lasered, and --force does not change that.'
        : '  No program was written, because a finding blocks; --force writes it all the same.',
    );
  return blocked ? 1 : 0;
}

/** What a layer burns with, and how that is known. */
function settingsInWords({ settings, sources }: AppliedSettings): string {
  if (!settings) return '';
  const { powerPercent, speedMmPerS, passes } = settings;
  const burns = `${powerPercent} %, ${speedMmPerS} mm/s${passes > 1 ? `, ${passes} passes` : ''}`;
  const source = sources.speedMmPerS;
  if (source?.kind === 'recipe') return `${burns}; ${source.evidence}: ${source.from}`;
  if (source?.kind !== 'worked out') return burns;
  return `${burns}; worked out from ${source.from}, right somewhere from ${source.doubt.least} to ${source.doubt.most} mm/s`;
}

/** A job whose cut layers all take the kerf that was asked for. */
function withKerf(job: JobDocument, shop: Shop, word: string): JobDocument {
  const kerf = parseLength(word, 'mm');
  if (!kerf.ok || kerf.value < 0) throw new Unusable(`--kerf must be a length such as 0.15mm, and not “${word}”.`);
  const cuts = prepareJob(job, shop).layers.filter(({ layer }) => separates(layer.operation));
  return cuts.reduce((known, { id }) => changeSetting(known, id, 'kerfMm', kerf.value), job);
}

/** What is to be planned: a job, and where it came from. */
interface Opened {
  readonly job: JobDocument;
  readonly source: ReportSource;
  readonly pictures: ReadonlyMap<string, PictureFile>;
}

/** A drawing on a sheet of the material that was asked for, or a stored job as it is. */
async function openFile(file: string, options: PlanOptions, shop: Shop): Promise<Opened> {
  if (file.endsWith('.json')) return openJob(file, options);
  const machine = choose(shop.machines, options.machine, 'machine');
  const material = choose(shop.materials, options.material, 'material');
  const { reading, items } = await readDrawing(file, options);
  const sheet = { ...sheetAsStocked('sheet-1', material, machine), ...measuredThickness(options.thickness) };
  return {
    job: setSheet(addItems(newJob(machine.id, shop.keys[0].id), items, reading.drawing.groups), sheet),
    source: {
      file: basename(file),
      format: reading.format,
      declaredWidthMm: reading.size.pageWidthMm,
      declaredHeightMm: reading.size.pageHeightMm,
      itemCount: items.filter((item) => !item.hidden).length,
      warnings: reading.notes
        .filter(({ kind }) => kind !== 'taken')
        .map(({ code, message, count }) => ({ code, message, count })),
    },
    pictures: new Map(reading.pictures.map((picture): [string, PictureFile] => [picture.id, picture])),
  };
}

function measuredThickness(word: string | undefined): { thicknessMm?: number } {
  if (word === undefined) return {};
  const thickness = parseLength(word, 'mm');
  if (!thickness.ok || !(thickness.value > 0)) {
    throw new Unusable(`--thickness must be a length such as 3.8mm, and not “${word}”.`);
  }
  return { thicknessMm: thickness.value };
}

/** A job as the server gives it at `/api/jobs/:id`. */
async function openJob(file: string, { machine }: PlanOptions): Promise<Opened> {
  try {
    const json: unknown = JSON.parse((await readBytes(file)).toString('utf8'));
    const document = typeof json === 'object' && json !== null && 'document' in json ? json.document : json;
    const job = jobFromJson(document);
    const itemCount = job.drawing.items.filter((item) => !item.hidden).length;
    const source = {
      file: basename(file),
      format: 'job',
      declaredWidthMm: null,
      declaredHeightMm: null,
      itemCount,
      warnings: [],
    };
    return { job: machine ? { ...job, machineId: machine } : job, source, pictures: new Map() };
  } catch (error) {
    if (error instanceof SyntaxError) throw new Unusable(`${file} is not JSON: ${error.message}.`);
    if (error instanceof NotADrawing) throw new Unusable(`${file} is not a job: ${error.message}.`);
    throw error;
  }
}

/** A key of the shop by its id, or one from a file. */
async function chooseKey(shop: Shop, wanted: string | undefined): Promise<ColourKey> {
  const known = shop.keys.find(({ id }) => id === wanted);
  if (wanted === undefined || known) return known ?? shop.keys[0];
  if (!/[./\\]/.test(wanted)) return choose(shop.keys, wanted, 'colour key');
  try {
    return keyFromText((await readBytes(wanted)).toString('utf8'));
  } catch (error) {
    if (error instanceof NotAKey) throw new Unusable(`${wanted}: ${error.message}`);
    throw error;
  }
}

/** A run by its name or id; a drawing has one run, `Run 1`. */
function runNamed(runs: readonly Run[], wanted: string | undefined): Run {
  const found = wanted === undefined ? runs[0] : runs.find(({ id, name }) => id === wanted || name === wanted);
  if (!found) {
    throw new Unusable(`There is no run “${wanted}”; there is ${runs.map(({ name }) => `“${name}”`).join(', ')}.`);
  }
  return found;
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
