import { blocks, checkJob, reportOf } from '@lambent/core/checks';
import type { JobDocument } from '@lambent/core/document';
import { changeSetting } from '@lambent/core/edits';
import { decodePicture, gatherOutgoing, prepareWithPictures, writeGcode, writeSvg } from '@lambent/core/formats';
import { boxOf } from '@lambent/core/geometry';
import { separates } from '@lambent/core/operations';
import { planJob, prepareJob, stepTitle } from '@lambent/core/plan';
import type { AppliedSettings, Shop } from '@lambent/core/recipes';
import { formatDuration, parseLength } from '@lambent/core/units';
import { shippedAssets } from '@lambent/fonts';
import { noteLine, sayTo, standard, write, writeLines } from './files.ts';
import { type LandingOptions, landedBy } from './landing.ts';
import {
  choose,
  chooseKey,
  defaultsInWords,
  demoShop,
  type OpeningOptions,
  openFile,
  readShop,
  runNamed,
} from './opening.ts';
import { asPhoto, type PhotoOptions, widthOfPhoto } from './photo.ts';
import { saidProgress } from './said-progress.ts';
import { Unusable } from './unusable.ts';

export interface PlanOptions extends OpeningOptions, PhotoOptions, LandingOptions {
  shop?: string;
  out?: string;
  svg?: string;
  report?: string;
  force?: boolean;
  run?: string;
  kerf?: string;
}

/**
 * Plans one drawing and writes what was asked for.
 * @returns the exit status: 0, or 1 when a finding blocks
 * @throws Unusable when the file or the words cannot be used
 */
export async function plan(file: string, options: PlanOptions): Promise<number> {
  const toOutput = [options.out, options.svg, options.report].filter((path) => path === standard).length;
  if (toOutput > 1) throw new Unusable('Standard output takes one file: give --out, --svg or --report a name.');
  const shop = await readShop(options.shop ?? demoShop);
  const opened = await openFile(file, { ...options, ...widthOfPhoto(options) }, shop);
  const { job, source, pictures } = opened;
  const machine = choose(shop.machines, job.machineId, 'machine');
  const key = await chooseKey(shop, options.key ?? job.keyId);
  const run = runNamed(job.runs, options.run);
  const lists = { ...shop, keys: [key, ...shop.keys] };
  const landed = landedBy(job, run.id, machine, options);
  const keyed = asPhoto({ ...opened, job: { ...landed.job, keyId: key.id } }, options, lists);
  const wanted = options.kerf === undefined ? keyed : withKerf(keyed, lists, options.kerf);
  const prepared = await prepareWithPictures(wanted, lists, { runId: run.id, head: landed.head }, async (id) => {
    const picture = pictures.get(id);
    if (!picture) throw new Unusable(`${source.file} burns a picture that is not in it: plan it on the server.`);
    return decodePicture(picture.bytes, shippedAssets);
  });
  const { material } = prepared;
  const said = saidProgress('planning');
  const burnPlan = planJob(prepared, said.progress);
  said.over();
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

  // What goes to standard output is one file, and nothing else.
  const say = sayTo(toOutput > 0);
  say(
    `${source.file}: ${source.itemCount} items on ${machine.name}, ${material ? `${material.name} ${material.thicknessMm} mm` : 'no sheet'}, ${key.name}${job.runs.length > 1 ? `, ${run.name}` : ''}`,
  );
  const defaults = defaultsInWords(options, wanted, source);
  if (defaults) say(`  ${defaults}`);
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
