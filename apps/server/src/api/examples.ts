import type {
  Answers,
  CreateJobDto,
  KerfDto,
  MachineCommandDto,
  NewRecipeDto,
  OffcutDto,
  StartRunDto,
} from '@lambent/contracts';
import { firstRun, jobToJson, newJob } from '@lambent/core/document';
import { usualSettings } from '@lambent/core/settings';
import { deskExamples, jobId } from './desk-examples.ts';
import { standing, timing, wren } from './machine-examples.ts';

/*
 * An example of everything that the API answers, and of what is sent most, from the demo world. They are held against the
 * types by the compiler, and against the schemas by a test.
 */

const runId = '0b6a7f0a-3d52-4a4c-8a0e-9f6a1d1c7e42';
const programHash = '9f2c4b7e1d3a5f60718293a4b5c6d7e8f90a1b2c3d4e5f60718293a4b5c6d7e8';
const document = jobToJson(newJob('wren', 'house'));

const cutting = {
  machineId: 'wren',
  operation: 'cut',
  powerPercent: 62,
  speedMmPerS: 14,
  passes: 1,
  lineSpacingMm: 0.1,
  evidence: 'proven',
  proof: { by: 'Ines Varga', on: '2026-09-12', what: 'test cards of September' },
  note: 'Burnt and judged by Ines Varga.',
} as const;

const plywood = {
  id: 'birch-ply-3',
  family: 'Plywood',
  name: 'Birch plywood',
  thicknessMm: 3,
  tone: '#EAD9B4',
  sheetWidth: 420,
  sheetHeight: 360,
  forbidden: null,
  stock: [{ id: 'whole', width: 420, height: 360, count: 8, price: 2.1 }],
};

const taken = {
  sheetId: 'sheet-1',
  materialId: 'birch-ply-3',
  stockId: 'whole',
  width: 420,
  height: 360,
  price: 2.1,
  offcut: false,
};

const { name: _, connection: __, isPutAway: ___, ...figures } = wren;

const ines = {
  id: 'ines',
  name: 'Ines Varga',
  role: 'manager',
  since: '2026-11-27T09:30:00.000Z',
  leftAt: null,
} as const;

const noPrices = { currency: '€', setUp: 0, perRun: 0, minimum: 0, rounding: 0, machines: {}, materials: {} };

export const answerExamples: Answers = {
  Timing: timing,
  BackupFile: { name: 'night-2026-11-27.tar.gz', madeAt: '2026-11-27T01:05:00.000Z', bytes: 5_242_880 },
  BookChange: {
    id: 12,
    at: '2026-11-27T09:30:00.000Z',
    by: 'Ines Varga',
    materialId: 'birch-ply-3',
    recipeId: 3,
    what: 'Cut on Wren: speed 14 mm/s (was 12 mm/s)',
    before: { ...cutting, speedMmPerS: 12 },
    after: cutting,
  },
  BookTaken: {
    added: 1,
    changed: 2,
    same: 14,
    faults: [{ line: 7, sentence: 'The speed is more than 0.' }],
    taken: true,
  },
  BurntPicture: {
    x: 10,
    y: 10,
    pitchMm: 0.1,
    width: 2,
    height: 2,
    codes: 'H4sIAAAAAAAAA2NgAAIAvQrVkAQAAAA=',
    simulated: true,
  },
  ColourKey: {
    id: 'house',
    name: 'Tern Lane house key',
    layers: [{ id: 'cut', name: 'Cut', operation: 'cut' }],
    rules: [{ part: 'stroke', colour: '#D0481E', tolerance: 1, minWidthMm: null, maxWidthMm: null, layerId: 'cut' }],
  },
  NumberFamily: {
    id: 'f4c1',
    name: 'Seed drawer, small',
    builder: 'joined-box',
    numbers: { width: 120, depth: 90, height: 50, lid: 'slides' },
  },
  DeletedJob: {
    id: jobId,
    title: 'Row markers, spring batch',
    deletedAt: '2026-11-27T09:30:00.000Z',
    goneAt: '2026-12-27T09:30:00.000Z',
  },
  DrawingTaken: { version: 2, format: 'svg', items: 77, pageWidthMm: 392, pageHeightMm: 332, warnings: [] },
  Error: {
    error: { code: 'saved-elsewhere', message: 'This job was changed in another window.', details: { latest: 5 } },
  },
  Font: { id: 'shipped-0', family: 'Bitter', bold: false, italic: false, generic: 'serif' },
  Health: { storage: { ok: true }, longestStallMs: 12 },
  Job: {
    id: jobId,
    title: 'Row markers, spring batch',
    project: 'Heronbrook Seed Library',
    version: 1,
    updatedAt: '2026-11-27T09:30:00.000Z',
    document,
  },
  ...deskExamples,
  JobDocument: document,
  JobFileLook: {
    title: 'Row markers, spring batch',
    project: 'Heronbrook Seed Library',
    madeAt: '2026-11-27T09:30:00.000Z',
    shopName: 'Tern Lane Workshop',
    items: 77,
    machine: { id: 'wren', name: 'Wren', bedWidth: 600, bedHeight: 400, isHere: false },
    key: { name: 'Tern Lane house key', isHere: false },
    materials: [{ name: 'Birch plywood', thicknessMm: 3, isHere: true, recipes: 3 }],
    newFonts: [],
    originals: ['row-markers.svg'],
    pictures: 0,
  },
  JobFileTaken: { id: jobId, notes: ['Wren was added to the machines, and is not connected.'] },
  Machine: wren,
  MachineState: standing,
  MachineUses: {
    jobs: [{ id: jobId, title: 'Row markers, spring batch' }],
    recipes: [{ materialId: 'birch-ply-3', material: 'Birch plywood 3 mm', count: 3 }],
  },
  ConnectionTest: {
    steps: [
      { level: 'good', message: 'The line is open, and it answers in the plain language.' },
      { level: 'good', message: 'It takes 127 characters and 17 moves.' },
    ],
    figures: { powerScale: 1000, travelSpeed: 120, acceleration: 1000, accelerationY: 1000, lookAhead: 16 },
  },
  RunBasis: {
    title: 'Row markers, spring batch',
    machine: figures,
    head: { x: 0, y: 0 },
    layers: [
      {
        id: 'cut',
        name: 'Cut',
        operation: 'cut',
        material: 'Birch plywood 3 mm',
        settings: { ...usualSettings(), powerPercent: 62, speedMmPerS: 14 },
      },
    ],
    steps: [{ title: 'Cut · outside', timeS: 268.4 }],
  },
  SerialPort: { path: '/dev/ttyUSB0', maker: null, machine: 'Sanderling' },
  Material: { ...plywood, version: 1, recipes: [{ id: 3, version: 2, ...cutting }] },
  Original: { id: 4, sha256: programHash },
  Report: {
    source: {
      file: 'Row markers',
      format: 'job',
      declaredWidthMm: null,
      declaredHeightMm: null,
      itemCount: 1,
      warnings: [],
    },
    bounds: { x: 20, y: 20, width: 180, height: 120 },
    paints: [{ stroke: '#D0481E', strokeWidthMm: 0.1, fill: null, items: 1, layer: 'Cut' }],
    nearMisses: [],
    layers: [
      {
        name: 'Cut',
        material: 'Birch plywood',
        operation: 'cut',
        items: 1,
        lengthMm: 600,
        areaMm2: 21_600,
        powerPercent: 62,
        speedMmPerS: 14,
        lineSpacingMm: null,
        grain: null,
        passes: 1,
        source: { kind: 'recipe', from: null, doubt: null },
        timeS: 42.9,
      },
    ],
    travelMm: 28.3,
    timeS: 43.1,
    findings: [],
  },
  Run: {
    id: runId,
    jobId,
    jobTitle: 'Row markers, spring batch',
    version: 2,
    jobRunId: firstRun.id,
    jobRunName: firstRun.name,
    machineId: 'wren',
    status: 'done',
    reason: null,
    startedAt: '2026-11-27T09:46:00.000Z',
    endedAt: '2026-11-27T10:02:00.000Z',
    programHash,
    lines: 3204,
    doneLine: 3204,
    plannedS: 959.3,
    machineS: 959.1,
    hasPicture: true,
    by: 'Ines Varga',
    materials: ['Birch plywood 3 mm'],
    afterRunId: null,
    fromLine: null,
    taken: [taken],
  },
  Person: ines,

  Deed: {
    id: 412,
    at: '2026-03-02T09:31:07.000Z',
    by: 'Ines Varga',
    what: 'deleteJob',
    subjectId: '7f0c2d3e-5a41-4b8e-9d10-2f6a1c9b7e55',
    subject: 'Row markers, spring batch',
  },
  Session: { person: ines, hasManager: true, demo: [] },
  Invitation: { token: 'kP3v…', role: 'member', validUntil: '2026-12-04T09:30:00.000Z' },
  ServerEvent: { type: 'machine', machine: standing },
  Settings: {
    shopName: 'Tern Lane Workshop',
    people: ['Ines Varga', 'Pavel Anders'],
    fileNames: '{job} {material} {date}',
    pricing: noPrices,
    speedUnit: 'mm/s',
    lengthUnit: 'mm',
    dates: 'day first',
    numbers: 'point',
    backupDays: 14,
    opensAt: '09:00',
    closesAt: '18:00',
    openDays: [1, 2, 3, 4, 5],
    setUpMinutes: 5,
    timeZone: 'Europe/Lisbon',
    quoteDays: 14,
    quoteTerms: 'Payable when it is fetched.',
    sendingMb: 10,
    mailAddress: 'workshop@ternlane.example',
    isSetUp: true,
    isDemo: false,
  },
  Version: { number: 2, edit: 'Move 3 items', savedAt: '2026-11-27T09:30:00.000Z' },
};

const job: CreateJobDto = { title: 'Row markers', machineId: 'wren', materialId: 'birch-ply-3' };
const start: StartRunDto = { version: 2 };
const command: MachineCommandDto = { command: 'hold' };
const recipe: NewRecipeDto = { by: 'Ines Varga', recipe: { ...cutting, variant: 'masked' } };
const kerf: KerfDto = { machineId: 'wren', mm: 0.18, from: 'measured', by: 'Ines Varga' };
const offcut: OffcutDto = { by: 'Ines Varga', sheetId: 'sheet-1', width: 210, height: 148 };

export const requestExamples = {
  CreateJobDto: job,
  StartRunDto: start,
  MachineCommandDto: command,
  NewRecipeDto: recipe,
  NewMaterialDto: { by: 'Ines Varga', material: plywood },
  KerfDto: kerf,
  OffcutDto: offcut,
  SignInDto: { name: 'Ines Varga', password: 'a heron on the slip' },
};
