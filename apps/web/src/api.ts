import type {
  AgainDto,
  AirDto,
  BeDto,
  ChangePersonDto,
  DescribeJobDto,
  DeskDto,
  FitDto,
  GiveJobDto,
  GoOnDto,
  HeadDto,
  InviteDto,
  JoinDto,
  KerfDto,
  MachineCommand,
  MakeQuoteDto,
  MoveJobDto,
  NewPasswordDto,
  NewPersonDto,
  OffcutDto,
  PutBackDto,
  QuoteNumberDto,
  RunsWishDto,
  SentMaterial,
  SettingsDto,
  ShareSheetsDto,
  SignInDto,
  StartRunDto,
  TakeNewFileDto,
  WalkDto,
  WriteMessageDto,
} from '@lambent/contracts';
import type { NumberFamily } from '@lambent/core/builders';
import type { ColourKey } from '@lambent/core/colours';
import type { Machine } from '@lambent/core/machine';
import type { Material, Recipe } from '@lambent/core/recipes';
import { cutName, data, raw, sent, server, withId } from './server.ts';

export { cutName, Refusal, sentenceOf } from './server.ts';

export const api = {
  session: () => data(server.GET('/api/session')),
  signIn: (body: SignInDto) => data(server.POST('/api/session', { body })),
  beInDemo: (body: BeDto) => data(server.POST('/api/session/demo', { body })),
  deeds: (before?: number) => data(server.GET('/api/deeds', { params: { query: { before } } })),
  signOut: () => data(server.DELETE('/api/session')),
  signOutEverywhere: () => data(server.DELETE('/api/session/everywhere')),
  changePassword: (body: NewPasswordDto) => data(server.PUT('/api/session/password', { body })),
  people: () => data(server.GET('/api/people')),
  addFirstManager: (body: NewPersonDto) => data(server.POST('/api/people/manager', { body })),
  invite: (body: InviteDto) => data(server.POST('/api/people/invitations', { body })),
  join: (body: JoinDto) => data(server.POST('/api/people/join', { body })),
  changePerson: (id: string, body: ChangePersonDto) =>
    data(server.PATCH('/api/people/{id}', { params: withId(id), body })),
  jobs: () => data(server.GET('/api/jobs')),
  quotes: (id: string) => data(server.GET('/api/jobs/{id}/quotes', { params: withId(id) })),
  quoteDraft: (id: string) => data(server.GET('/api/jobs/{id}/quote-draft', { params: withId(id) })),
  makeQuote: (id: string, body: MakeQuoteDto) =>
    data(server.POST('/api/jobs/{id}/quotes', { params: withId(id), body })),
  acceptQuote: (id: string, body: QuoteNumberDto) =>
    data(server.POST('/api/jobs/{id}/quotes/accepted', { params: withId(id), body })),
  withdrawQuote: (id: string, body: QuoteNumberDto) =>
    data(server.POST('/api/jobs/{id}/quotes/withdrawn', { params: withId(id), body })),
  day: (day: string | null) => data(server.GET('/api/day', { params: { query: day === null ? {} : { day } } })),
  giveJob: (id: string, body: GiveJobDto) => data(server.PUT('/api/day/jobs/{id}', { params: withId(id), body })),
  takeOffDay: (id: string, seen: number) =>
    data(server.DELETE('/api/day/jobs/{id}', { params: { ...withId(id), query: { seen } } })),
  sharing: () => data(server.GET('/api/sharing')),
  shareSheets: (body: ShareSheetsDto) => data(server.POST('/api/sharing', { body })),
  jobSharing: (id: string) => data(server.GET('/api/jobs/{id}/sharing', { params: withId(id) })),
  nextRun: (id: string) => data(server.GET('/api/jobs/{id}/next-run', { params: withId(id) })),
  desk: (query: DeskDto) => data(server.GET('/api/desk', { params: { query } })),
  job: (id: string) => data(server.GET('/api/jobs/{id}', { params: withId(id) })),
  /** A job, or one of its versions, as the server wrote it: a `Job` in JSON. */
  jobJson: (id: string, version?: number): Promise<ArrayBuffer> =>
    version === undefined
      ? data(server.GET('/api/jobs/{id}', { params: withId(id), parseAs: 'arrayBuffer' }))
      : data(
          server.GET('/api/jobs/{id}/versions/{number}', {
            params: { path: { id, number: version } },
            parseAs: 'arrayBuffer',
          }),
        ),
  createJob: (title: string, machineId: string, materialId?: string) =>
    data(server.POST('/api/jobs', { body: { title, machineId, materialId } })),
  lookAtJobFile: (file: File) => data(server.POST('/api/job-files/look', raw(new Blob([file])))),
  takeJobFile: (author: string, machineId: string | undefined, file: File) =>
    data(server.POST('/api/job-files', { params: { query: { by: author, machineId } }, ...raw(new Blob([file])) })),
  deletedJobs: () => data(server.GET('/api/jobs/deleted')),
  deleteJob: (id: string) => data(server.DELETE('/api/jobs/{id}', { params: withId(id) })),
  takeJobBack: (id: string) => data(server.POST('/api/jobs/{id}/take-back', { params: withId(id) })),
  describeJob: (id: string, body: DescribeJobDto) =>
    data(server.PATCH('/api/jobs/{id}', { params: withId(id), body: sent(body) })),
  duplicateJob: (id: string, title: string) =>
    data(server.POST('/api/jobs/{id}/duplicate', { params: withId(id), body: { title: cutName(title) } })),
  moveJob: (id: string, body: MoveJobDto) => data(server.PUT('/api/jobs/{id}/state', { params: withId(id), body })),
  jobSending: (id: string) => data(server.GET('/api/jobs/{id}/sending', { params: withId(id) })),
  takeNewFile: (id: string, body: TakeNewFileDto) =>
    data(server.POST('/api/jobs/{id}/new-file/taken', { params: withId(id), body })),
  leaveNewFileOut: (id: string, body: TakeNewFileDto) =>
    data(server.POST('/api/jobs/{id}/new-file/left-out', { params: withId(id), body })),
  jobMessages: (id: string) => data(server.GET('/api/jobs/{id}/messages', { params: withId(id) })),
  writeToSender: (id: string, body: WriteMessageDto) =>
    data(server.POST('/api/jobs/{id}/messages', { params: withId(id), body })),
  endAwaiting: (id: string) => data(server.DELETE('/api/jobs/{id}/awaits', { params: withId(id) })),
  figures: (from: string, until: string) => data(server.GET('/api/figures', { params: { query: { from, until } } })),
  mails: () => data(server.GET('/api/mails')),
  sendMailsAgain: () => data(server.POST('/api/mails/again')),
  jobSteps: (id: string) => data(server.GET('/api/jobs/{id}/steps', { params: withId(id) })),
  saveJob: (id: string, base: number, edit: string, document: Blob) =>
    data(
      server.PUT('/api/jobs/{id}', {
        params: { ...withId(id), query: { base, edit: cutName(edit) } },
        ...raw(document),
      }),
    ),
  copyJob: (id: string, title: string, document: Blob) =>
    data(
      server.POST('/api/jobs/{id}/copies', {
        params: { ...withId(id), query: { title: cutName(title) } },
        ...raw(document),
      }),
    ),
  keepOriginal: (id: string, file: File) =>
    data(
      server.POST('/api/jobs/{id}/originals', {
        params: { ...withId(id), query: { name: file.name } },
        ...raw(new Blob([file])),
      }),
    ),
  original: (id: string, original: number): Promise<Blob> =>
    data(server.GET('/api/jobs/{id}/originals/{original}', { params: { path: { id, original } }, parseAs: 'blob' })),
  keepPicture: (id: string, bytes: Uint8Array) =>
    data(server.PUT('/api/pictures/{id}', { params: withId(id), ...raw(new Blob([bytes.slice()])) })),
  settings: () => data(server.GET('/api/settings')),
  settle: (body: SettingsDto) => data(server.PUT('/api/settings', { body: sent(body) })),
  backups: () => data(server.GET('/api/backups')),
  makeBackup: () => data(server.POST('/api/backups')),
  lookAroundInDemo: () => data(server.POST('/api/demo')),
  leaveDemo: () => data(server.DELETE('/api/demo')),
  fonts: () => data(server.GET('/api/fonts')),
  loadFont: (file: File) => data(server.POST('/api/fonts', raw(new Blob([file])))),
  versions: (id: string) => data(server.GET('/api/jobs/{id}/versions', { params: withId(id) })),
  machines: () => data(server.GET('/api/machines')),
  addMachine: (body: Machine) => data(server.POST('/api/machines', { body: sent(body) })),
  changeMachine: (body: Machine) =>
    data(server.PUT('/api/machines/{id}', { params: withId(body.id), body: sent(body) })),
  serialPorts: () => data(server.GET('/api/machines/ports')),
  testConnection: (body: Machine) => data(server.POST('/api/machines/connection-test', { body: sent(body) })),
  machineUses: (id: string) => data(server.GET('/api/machines/{id}/uses', { params: withId(id) })),
  runBasis: (id: string) => data(server.GET('/api/runs/{id}/basis', { params: withId(id) })),
  /** The program of a run, as it was sent. */
  program: (id: string): Promise<string> =>
    data(server.GET('/api/runs/{id}/program.gcode', { params: withId(id), parseAs: 'text' })),
  burnAgain: (id: string, body: AgainDto) => data(server.POST('/api/runs/{id}/again', { params: withId(id), body })),
  goOn: (id: string, body: GoOnDto) => data(server.POST('/api/runs/{id}/go-on', { params: withId(id), body })),
  moveHead: (id: string, body: HeadDto) => data(server.POST('/api/machines/{id}/head', { params: withId(id), body })),
  timing: (id: string) => data(server.GET('/api/machines/{id}/timing', { params: withId(id) })),
  runTimingCard: (id: string) => data(server.POST('/api/machines/{id}/timing', { params: withId(id) })),
  moveFocus: (id: string, dz: number) =>
    data(server.POST('/api/machines/{id}/focus', { params: withId(id), body: { dz } })),
  switchAir: (id: string, air: AirDto['air']) =>
    data(server.POST('/api/machines/{id}/air', { params: withId(id), body: { air } })),
  walk: (jobId: string, body: WalkDto) => data(server.POST('/api/jobs/{id}/walks', { params: withId(jobId), body })),
  materials: () => data(server.GET('/api/materials')),
  addMaterial: (author: string, material: SentMaterial) =>
    data(server.POST('/api/materials', { body: sent({ by: author, material }) })),
  changeMaterial: (author: string, { version = 0, ...material }: Material) =>
    data(
      server.PUT('/api/materials/{id}', { params: withId(material.id), body: sent({ by: author, version, material }) }),
    ),
  addRecipe: (author: string, materialId: string, recipe: Recipe) =>
    data(
      server.POST('/api/materials/{id}/recipes', { params: withId(materialId), body: sent({ by: author, recipe }) }),
    ),
  changeRecipe: (author: string, { id = 0, version = 0, ...recipe }: Recipe) =>
    data(server.PUT('/api/recipes/{id}', { params: withId(id), body: sent({ by: author, version, recipe }) })),
  bookHistory: (materialId: string) => data(server.GET('/api/materials/{id}/history', { params: withId(materialId) })),
  undoChange: (author: string, id: number) =>
    data(server.POST('/api/book/changes/{id}/undo', { params: withId(id), body: { by: author } })),
  takeBookIn: (author: string, format: 'json' | 'csv', take: 'good' | 'all-or-nothing', file: Blob) =>
    data(
      server.POST('/api/book/take-in', { params: { query: { by: author, format, take } }, ...raw(new Blob([file])) }),
    ),
  keepKerf: (materialId: string, body: KerfDto) =>
    data(server.PUT('/api/materials/{id}/kerf', { params: withId(materialId), body })),
  keepFit: (materialId: string, body: FitDto) =>
    data(server.PUT('/api/materials/{id}/fit', { params: withId(materialId), body })),
  keys: () => data(server.GET('/api/colour-keys')),
  addKey: (body: ColourKey) => data(server.POST('/api/colour-keys', { body: sent(body) })),
  changeKey: (body: ColourKey) =>
    data(server.PUT('/api/colour-keys/{id}', { params: withId(body.id), body: sent(body) })),
  removeKey: (id: string) => data(server.DELETE('/api/colour-keys/{id}', { params: withId(id) })),
  orderKeys: (ids: readonly string[]) => data(server.PUT('/api/colour-keys/order', { body: sent({ ids }) })),
  /** What stands in a field of a builder is of several types, which the description leaves open. */
  families: async () => (await data(server.GET('/api/number-families'))) as NumberFamily[],
  addFamily: (body: NumberFamily) => data(server.POST('/api/number-families', { body: sent(body) })),
  removeFamily: (id: string) => data(server.DELETE('/api/number-families/{id}', { params: withId(id) })),
  command: (machineId: string, command: MachineCommand) =>
    data(server.POST('/api/machines/{id}/commands', { params: withId(machineId), body: { command } })),
  runs: (job?: string) => data(server.GET('/api/runs', { params: { query: { job } } })),
  searchRuns: (query: RunsWishDto) => data(server.GET('/api/runs', { params: { query } })),
  burntPicture: (runId: string) => data(server.GET('/api/runs/{id}/picture', { params: withId(runId) })),
  putSheetBack: (runId: string, body: PutBackDto) =>
    data(server.POST('/api/runs/{id}/stock/put-back', { params: withId(runId), body })),
  keepOffcut: (runId: string, body: OffcutDto) =>
    data(server.POST('/api/runs/{id}/stock/offcuts', { params: withId(runId), body })),
  startRun: (jobId: string, body: StartRunDto) =>
    data(server.POST('/api/jobs/{id}/runs', { params: withId(jobId), body })),
};
