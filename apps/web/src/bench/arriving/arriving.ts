import { type Anchor, type Arrival, boundsOf, type ReadingChoices, sheetSafeBox } from '@lambent/core/document';
import {
  type ArrivalPlace,
  acceptArrival,
  arrivalMap,
  largestFile,
  type Reading,
  rereadArrival,
  shownBounds,
} from '@lambent/core/formats';
import {
  type Box,
  boxContains,
  boxHeight,
  boxOf,
  boxWidth,
  emptyBox,
  type Matrix,
  meanScale,
  transformBox,
} from '@lambent/core/geometry';
import { toast } from 'sonner';
import { api, sentenceOf } from '../../api.ts';
import { t } from '../../words/words.ts';
import { breathe } from '../../workers/breathe.ts';
import { readDrawing } from '../../workers/work.ts';
import { showPicture } from '../bed/pictures.ts';
import type { Arriving, PlaceKind, ReadingTurn } from '../state/arriving.ts';
import type { BenchActions, BenchState } from '../state/bench-state.ts';
import { jobOf, machineOf } from '../state/document.ts';
import { zeroAnchor } from '../state/hand.ts';

/** Reads files one after another; each waits on its card until it is taken or left. */
export async function offerFiles(actions: BenchActions, files: readonly File[]): Promise<void> {
  if (files.length === 0) return;
  actions.queueFiles(files);
  const { incoming } = actions.get();
  if (!incoming.arriving && incoming.reading === null) await readNext(actions);
}

/** Leaves the arriving file, and reads the next. */
export async function readNext(actions: BenchActions): Promise<void> {
  const file = actions.nextFile();
  if (!file) return;
  const id = `a${crypto.randomUUID().slice(0, 8)}`;
  const turn = actions.beginReading(file.name, {});
  await show(actions, turn, file, id, (reading) => freshArriving(actions.get(), id, file, reading));
}

/** Reads a file and shows its card; a refusal is shown instead, and the next file is read. */
async function show(
  actions: BenchActions,
  turn: ReadingTurn,
  file: File,
  id: string,
  make: (reading: Reading) => Arriving,
): Promise<void> {
  const isWanted = () => actions.get().incoming.reading?.id === turn.id;
  try {
    if (file.size > largestFile) throw new Error(tooLarge(file));
    const progress = (parts: number) => {
      if (isWanted()) actions.countParts(parts);
    };
    const bytes = new Uint8Array(await file.arrayBuffer());
    const reading = await readDrawing(bytes, id, turn.choices, { progress, signal: turn.stop.signal });
    if (!isWanted()) return;
    for (const picture of reading.pictures) void showPicture(picture.id, picture.bytes);
    const arriving = make(reading);
    actions.select([]);
    await breathe();
    if (!isWanted()) return;
    actions.showArriving(arriving);
  } catch (error) {
    if (!isWanted()) return;
    actions.refuseFile(file.name, sentenceOf(error));
    const { incoming } = actions.get();
    if (!incoming.arriving && incoming.waiting.length > 0) await readNext(actions);
  }
}

function tooLarge(file: File): string {
  const mb = (size: number) => Math.round(size / 1024 / 1024);
  return t('It is {{file}} MB; Lambent takes files up to {{largestFile}} MB. Leave pictures out, or split it.', {
    file: mb(file.size),
    largestFile: mb(largestFile),
  });
}

function freshArriving(state: BenchState, id: string, file: File, reading: Reading): Arriving {
  const { bedWidth, bedHeight } = machineOf(state);
  const found = shownBounds(reading);
  // A page says where things lie; without one, or off the bed, the middle is the better guess.
  const fits = boxContains(boxOf(0, 0, bedWidth, bedHeight), found, 0.001);
  const place: PlaceKind =
    reading.size.pageWidthMm !== null && reading.format !== 'picture' && fits ? 'as-in-file' : 'within';
  return {
    id,
    file,
    reading,
    choices: {},
    factor: 1,
    place,
    anchor: middle,
    point: { x: found.minX, y: found.minY },
    measured: null,
    again: null,
    taking: false,
  };
}

/** Reads the arriving file again with other choices. */
export async function chooseReading(actions: BenchActions, change: ReadingChoices): Promise<void> {
  const { arriving, reading: before } = actions.get().incoming;
  if (!arriving) return;
  // What was chosen a moment ago, and is still being read with, is chosen too.
  const choices = { ...arriving.choices, ...before?.choices, ...change };
  const turn = actions.beginReading(arriving.file.name, choices);
  await show(actions, turn, arriving.file, arriving.id, (reading) => ({
    ...(actions.get().incoming.arriving ?? arriving),
    reading,
    choices,
    measured: null,
  }));
}

/** Loads a font for the shop, and reads the arriving file again with it. */
export async function loadFont(actions: BenchActions, file: File): Promise<void> {
  try {
    const { family } = await api.loadFont(file);
    toast.success(t('{{family}} is in the shop’s fonts.', { family }));
    await chooseReading(actions, {});
  } catch (error) {
    toast.error(t('{{name}} was not loaded. {{error}}', { name: file.name, error: sentenceOf(error) }));
  }
}

/** Sets the size by a dimension that is known: of the whole, or of the measured part. */
export function setKnown(actions: BenchActions, side: 'width' | 'height', mm: number): string | undefined {
  const { arriving } = actions.get().incoming;
  if (!arriving) return;
  const box = measuredBox(arriving);
  const read = side === 'width' ? boxWidth(box) : boxHeight(box);
  if (!(mm > 0)) return t('A size is more than 0.');
  if (!(read > 0)) return t('This part has no extent that way.');
  actions.adjustArriving({ factor: mm / read });
}

/** What a known dimension is typed of, in mm as read. */
export function measuredBox({ reading, measured }: Arriving): Box {
  const part = reading.drawing.items.find(({ id }) => id === measured);
  return part ? boundsOf(part) : shownBounds(reading);
}

/** From the drawing as read to its place on the bed. */
export function mapOf(state: BenchState, arriving: Arriving): Matrix {
  return arrivalMap(arriving.reading, arriving.factor, placeOf(state, arriving));
}

function placeOf(state: BenchState, { place: kind, anchor, point }: Arriving): ArrivalPlace {
  if (kind === 'as-in-file') return { kind };
  if (kind === 'point') return { kind, at: point, anchor };
  const { bedWidth, bedHeight } = machineOf(state);
  const [sheet] = jobOf(state).sheets;
  return { kind, anchor, box: sheet ? sheetSafeBox(sheet) : boxOf(0, 0, bedWidth, bedHeight) };
}

/** Places what arrives in another way: on the sheet in its middle, at a point by its corner nearest to the machine's zero. */
export function choosePlace(actions: BenchActions, place: PlaceKind): void {
  actions.adjustArriving({ place, anchor: place === 'point' ? zeroAnchor(machineOf(actions.get())) : middle });
}

const middle: Anchor = { u: 0.5, v: 0.5 };

/** Where the arriving items that show would come to lie; empty when none does. */
export function placedBounds(state: BenchState, arriving: Arriving): Box {
  const { reading } = arriving;
  const shows = reading.drawing.items.some((item) => !item.hidden);
  return shows ? transformBox(shownBounds(reading), mapOf(state, arriving)) : emptyBox;
}

/** Puts the arriving file into the job as one edit, keeps its original and its pictures, and reads the next. */
export async function take(actions: BenchActions): Promise<void> {
  const state = actions.get();
  const { arriving } = state.incoming;
  if (!arriving || arriving.taking) return;
  actions.adjustArriving({ taking: true });
  const { reading, file, again, choices } = arriving;
  try {
    for (const { id, bytes } of reading.pictures) await api.keepPicture(id, bytes);
  } catch (error) {
    actions.adjustArriving({ taking: false });
    toast.error(
      t('The pictures of {{name}} could not be kept, so nothing was taken: {{error}}', {
        name: file.name,
        error: sentenceOf(error),
      }),
    );
    return;
  }
  const originalId = again ? again.arrival.originalId : await keepOriginal(state.jobId, file);
  const arrival: Omit<Arrival, 'notes'> = {
    id: arriving.id,
    file: file.name,
    originalId,
    choices,
    place: mapOf(actions.get(), arriving),
  };
  const { key } = actions.get().prepared;
  if (again) {
    const readings = { before: again.before, after: reading };
    actions.edit(t('read {{name}} again', { name: file.name }), (job) => rereadArrival(job, arrival, readings, key));
  } else actions.edit(t('bring in {{name}}', { name: file.name }), (job) => acceptArrival(job, arrival, reading, key));
  await breathe();
  const known = new Set(jobOf(actions.get()).drawing.items.map(({ id }) => id));
  actions.select(reading.drawing.items.flatMap(({ id, hidden }) => (hidden || !known.has(id) ? [] : [id])));
  await breathe();
  await readNext(actions);
}

async function keepOriginal(jobId: string, file: File): Promise<number | null> {
  try {
    return (await api.keepOriginal(jobId, file)).id;
  } catch (error) {
    toast.error(
      t('{{name}} is drawn, but the file itself was not kept: {{error}}', {
        name: file.name,
        error: sentenceOf(error),
      }),
    );
    return null;
  }
}

/** Opens the card of something that was brought in before, to read it with other choices. */
export async function readAgain(actions: BenchActions, arrival: Arrival): Promise<void> {
  const { jobId, incoming } = actions.get();
  if (arrival.originalId === null || incoming.reading !== null) return;
  actions.hideArriving();
  const turn = actions.beginReading(arrival.file, arrival.choices);
  let file: File;
  try {
    file = new File([await api.original(jobId, arrival.originalId)], arrival.file);
  } catch (error) {
    actions.refuseFile(arrival.file, sentenceOf(error));
    return;
  }
  await show(actions, turn, file, arrival.id, (reading) => {
    const factor = meanScale(arrival.place);
    const { minX, minY } = shownBounds(reading);
    const [, , , , x, y] = arrival.place;
    return {
      id: arrival.id,
      file,
      reading,
      choices: arrival.choices,
      factor,
      place: 'point',
      anchor: { u: 0, v: 0 },
      point: { x: x + minX * factor, y: y + minY * factor },
      measured: null,
      again: { arrival, before: reading },
      taking: false,
    };
  });
}
