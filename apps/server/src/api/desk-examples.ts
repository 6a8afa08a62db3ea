import type { Answers, DayBlock, DayRun, JobCard, SendingAnswer } from '@lambent/contracts';

/*
 * Examples of what the Desk answers.
 */

export const jobId = '5d1f0c9e-6f0b-4b0e-9c55-0d6f5a3f2b11';

const card: JobCard = {
  id: jobId,
  title: 'Row markers, spring batch',
  project: 'Heronbrook Seed Library',
  version: 2,
  updatedAt: '2026-11-27T09:30:00.000Z',
  machineId: 'wren',
  materialId: 'birch-ply-3',
  itemCount: 77,
  lastRun: { status: 'done', endedAt: '2026-11-27T10:02:00.000Z' },
  state: 'burnt',
  stateSince: '2026-11-27T10:02:00.000Z',
  awaits: null,
  whose: 'Noor Castellan',
  wantedBy: '2026-12-01',
  estimate: { seconds: 962, price: 6.2, blocks: 0, warns: 1 },
  sharedOn: null,
  shares: 0,
};

const sharing = { jobId, title: card.title, whose: card.whose, copies: 1 };

const sending: SendingAnswer = {
  file: 'kingfisher-window.svg',
  wish: {
    materialId: 'acrylic-clear-3',
    ownStock: '',
    copies: 2,
    widthMm: 142,
    page: 1,
    answers: [{ part: 'stroke', colour: '#1C7ED6', widthMm: 0.2, answer: 'cut' }],
  },
  look: {
    machineId: 'wren',
    format: 'svg',
    pages: 1,
    widthMm: 142,
    heightMm: 88.4,
    saysSize: true,
    paints: [{ part: 'stroke', colour: '#1C7ED6', widthMm: 0.2, items: 1, operation: 'cut', answer: 'cut' }],
    findings: [],
    fine: 18,
    seconds: 1260,
    price: { total: 14.8, parts: [{ what: 'Wren, 21.0 min', amount: 9.1 }] },
  },
  looks: 3,
  difference: null,
  newFile: { file: 'kingfisher-window-2.svg', at: '2026-11-27T10:20:00.000Z' },
  sent: {
    at: '2026-11-27T09:30:00.000Z',
    name: 'Noor Castellan',
    title: 'Kingfisher window piece',
    notes: 'Engrave it from the back, please.',
    wantedBy: '2026-11-28',
    mail: 'noor@castellan.example',
  },
  readyAt: '2026-11-27T16:10:00.000Z',
  job: { state: 'came in', since: '2026-11-27T09:30:00.000Z' },
};

const run: DayRun = {
  runId: '7c0e1c55-4a1e-4c58-8a4f-1f2f0f6b8a10',
  jobId,
  title: card.title,
  status: 'running',
  plannedS: 962,
  from: '2026-11-27T10:17:00.000Z',
  until: '2026-11-27T10:33:00.000Z',
};

const block: DayBlock = {
  jobId: '0d5cf7c2-6d0a-4c36-8f0f-4a2a8b7b5d5e',
  title: 'Moon-sowing dial',
  whose: 'Wilhelmina Strand',
  state: 'ready',
  seconds: 4920,
  from: '2026-11-27T10:38:00.000Z',
  until: '2026-11-27T12:00:00.000Z',
  notBefore: null,
  wantedBy: '2026-11-28',
  isLate: false,
  seen: 2,
};

const quoteLines = [
  { what: 'Wren, 21.0 min', amount: 9.1 },
  { what: 'Cast acrylic, clear', amount: 4.2 },
  { what: 'setting up', amount: 1.5 },
];

export const deskExamples: Pick<
  Answers,
  | 'BegunSending'
  | 'Day'
  | 'DeskPage'
  | 'DropOff'
  | 'JobCard'
  | 'JobSending'
  | 'Figures'
  | 'JobSharing'
  | 'JobStep'
  | 'Mails'
  | 'Message'
  | 'NextRun'
  | 'OwnSending'
  | 'Quote'
  | 'QuoteDraft'
  | 'Sending'
  | 'SharingGroup'
  | 'SheetsShared'
> = {
  BegunSending: { ...sending, sent: null, job: null, token: 'q7Zk1p0sXvB3nT5yWcE8uHgLrM2aDfJ9oPiKxQzVbN4' },
  Day: {
    day: '2026-11-27',
    today: '2026-11-27',
    now: '2026-11-27T10:24:00.000Z',
    whole: { from: '2026-11-27T00:00:00.000Z', until: '2026-11-28T00:00:00.000Z' },
    openings: [{ from: '2026-11-27T09:00:00.000Z', until: '2026-11-27T18:00:00.000Z' }],
    setUpMinutes: 5,
    machines: [{ machineId: 'wren', runs: [run], running: run, blocks: [block], freeAt: block.until }],
  },
  DropOff: {
    shopName: 'Tern Lane Workshop',
    currency: '€',
    materials: [
      {
        id: 'acrylic-clear-3',
        name: 'Cast acrylic, clear',
        thicknessMm: 3,
        tone: '#E8F1F4',
        sheetWidth: 600,
        sheetHeight: 400,
        leastWallMm: 1,
        leastLetterMm: 1.5,
      },
    ],
    rules: [{ part: 'stroke', colour: '#D0481E', minWidthMm: null, maxWidthMm: null, operation: 'cut' }],
    hairlineMm: null,
    marginMm: 3,
    bed: { width: 1000, height: 700 },
    largestMb: 10,
    writesMails: true,
  },
  Figures: {
    currency: '€',
    weeks: [
      { week: '2026-11-23', machines: [{ machineId: 'wren', seconds: 15_120, runs: 31 }], amount: 214.6, jobs: 19 },
    ],
    people: [{ name: 'Ines Varga', seconds: 15_120, runs: 31, amount: 0, jobs: 0 }],
    stock: [{ materialId: 'birch-ply-3', used: 7, offcutsUsed: 1, left: 12, offcutsLeft: 2 }],
    withoutPrice: 1,
  },
  JobSending: {
    at: '2026-11-27T09:30:00.000Z',
    name: 'Noor Castellan',
    mail: 'noor@castellan.example',
    isOpen: true,
    notes: 'Engrave it from the back, please.',
    copies: 2,
    ownStock: '',
    file: 'kingfisher-window.svg',
    look: sending.look,
    wish: sending.wish,
    newFile: {
      id: '6f1c63ce-1f7c-4be6-8b0e-2f0f0a3c5a11',
      file: 'kingfisher-window-2.svg',
      at: '2026-11-27T10:20:00.000Z',
      difference: { same: 14, otherwise: 0, gone: 1, added: 2 },
      look: sending.look,
      wish: sending.wish,
    },
  },
  OwnSending: {
    id: 'b0e6a3b2-64a4-4a35-9a5e-3df5f2b5b0aa',
    title: 'Kingfisher window piece',
    at: '2026-11-27T09:30:00.000Z',
    state: 'came in',
  },
  Quote: {
    number: 12,
    title: card.title,
    whose: card.whose,
    lines: quoteLines,
    total: 14.8,
    currency: '€',
    validUntil: '2026-12-11',
    terms: 'Payable when it is fetched.',
    madeAt: '2026-11-27T09:12:00.000Z',
    by: 'Ines Varga',
    state: 'open',
    acceptedAt: null,
    acceptedBy: null,
  },
  QuoteDraft: { lines: quoteLines, validUntil: '2026-12-11', terms: 'Payable when it is fetched.' },
  Sending: sending,
  DeskPage: {
    jobs: [card],
    total: 1,
    counts: {
      all: 1,
      'wants you': 0,
      'came in': 0,
      'being prepared': 0,
      quoted: 0,
      ready: 0,
      'on a machine': 0,
      burnt: 1,
      'handed over': 0,
      'put away': 0,
    },
  },
  JobCard: card,
  Mails: {
    folder: '/srv/lambent/data/outbox',
    waiting: 0,
    givenUp: 0,
    mails: [
      {
        id: 12,
        to: 'noor@castellan.example',
        subject: 'Quote 4 for “Kingfisher window piece”',
        at: '2026-11-27T10:00:00.000Z',
        sentAt: '2026-11-27T10:00:01.000Z',
        state: 'sent',
        trouble: null,
      },
    ],
  },
  Message: {
    id: 3,
    at: '2026-11-27T09:48:00.000Z',
    kind: 'text',
    from: 'workshop',
    by: 'Ines Varga',
    text: 'Are the feathers to be engraved, or cut through?',
  },
  NextRun: {
    version: 2,
    runId: 'run-1',
    runName: 'Run 1',
    stock: 'fresh',
    sheets: [{ name: 'Birch plywood 3 mm', width: 600, height: 400, pieces: 1, inStock: 8 }],
  },
  JobStep: { id: 31, state: 'burnt', at: '2026-11-27T10:02:00.000Z', by: null, with: null },
  JobSharing: {
    sharedJob: null,
    parts: [{ ...sharing, state: 'ready', isChanged: false, price: 4.13, leftAt: null }],
  },
  SharingGroup: {
    machineId: 'wren',
    materialId: 'birch-ply-3',
    jobs: [sharing],
    leftOut: [{ jobId: 'c7d5a6b0-2a0c-4b7e-8c43-7b9f4f2f6f0e', title: 'Wall map', why: 'sheet' }],
    layout: {
      print: '4f0c9e5d1f6f0b4b0e9c550d6f5a3f2b',
      sheets: [
        {
          widthMm: 600,
          heightMm: 400,
          use: 0.86,
          outline: 'M0 0L600 0L600 400L0 400Z',
          pieces: [{ jobId, outline: 'M3 3L43 3L43 123L3 123Z' }],
        },
      ],
      seconds: 6240,
      price: 31.4,
      blocks: 0,
      warns: 1,
    },
    trouble: null,
  },
  SheetsShared: { jobId },
};
