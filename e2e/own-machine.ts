import { type ChildProcess, spawn } from 'node:child_process';
import { connect } from 'node:net';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import type { JobCard } from '@lambent/contracts';
import { type Machine, usualMachine } from '@lambent/core/machine';
import { standInWords } from '@lambent/machines';
import type { Locator, Page } from '@playwright/test';
import { SerialMachine } from '../apps/server/test/serial-machine.ts';
import { bringIn, openStage, saved, svg } from './bench.ts';
import { type OwnServer, startOwnServer } from './own-server.ts';

/** A shop with one machine, whose zero is at the front left of a bed of 400 × 300 mm: a stand-in, or a small controller. */
export interface OwnMachine {
  readonly own: OwnServer;
  readonly machine: Machine;
  /** The cable of a small controller; null of a stand-in. */
  readonly line: SerialMachine | null;
  /** Touches a switch at the end of an axis: of a small controller, or of a stand-in apart. */
  alarm(): Promise<void>;
  close(): Promise<void>;
}

/**
 * @param factor how many times as fast as a real machine's its time passes
 * @param unlike words for a stand-in that is not what is said of it
 */
export async function startOwnMachine(
  page: Page,
  language: 'Lambent' | 'plain',
  factor = 20,
  unlike: readonly string[] = [],
): Promise<OwnMachine> {
  const own = await startOwnServer();
  const line = language === 'plain' ? new SerialMachine() : null;
  const speeds = ['--top-speed', '500', '--travel-speed', '600', '--factor', String(factor)];
  await line?.start('--width', '400', '--height', '300', ...speeds, ...unlike);
  const apart = !line && unlike.length > 0 ? await startApart(factor, unlike) : null;
  const connection = line
    ? { kind: 'serial', path: line.port, baud: 115_200, buffer: 127 }
    : apart
      ? { kind: 'network', host: '127.0.0.1', port: apart.port, language: 'lambent', buffer: 127 }
      : { kind: 'stand-in', factor };
  await page.request.put(`${own.address}/api/settings`, { data: { isSetUp: true } });
  const able = {
    pointer: { x: 12, y: -4 },
    focus: { lowest: -5, highest: 20, speed: 10 },
    air: { levels: ['low'], mostBar: null },
  };
  const data = {
    ...usualMachine('co2'),
    name: 'Plover',
    bedWidth: 400,
    bedHeight: 300,
    origin: 'bottom-left',
    ...(line ? {} : able),
    connection,
  };
  const machine = await (await page.request.post(`${own.address}/api/machines`, { data })).json();
  const close = async () => {
    await own.close();
    await line?.close();
    apart?.child.kill();
  };
  const alarm = async () => (line ? line.do('alarm') : touchSwitch(apart?.port ?? 0));
  return { own, machine, line, alarm, close };
}

/** Says to a stand-in that listens at a port that a switch was touched. */
function touchSwitch(port: number): Promise<void> {
  return new Promise((resolve, reject) => {
    const socket = connect(port, '127.0.0.1', () => socket.write('limit\n'));
    socket.once('data', () => {
      socket.destroy();
      resolve();
    });
    socket.once('error', reject);
  });
}

/** Starts a stand-in apart from the server, as a machine in the network. */
async function startApart(factor: number, unlike: readonly string[]): Promise<{ child: ChildProcess; port: number }> {
  const usual = { ...usualMachine('co2'), name: 'Plover', bedWidth: 400, bedHeight: 300, origin: 'bottom-left' };
  const program = fileURLToPath(new URL('../apps/stand-in/dist/main.js', import.meta.url));
  const words = [...standInWords(usual, 0, factor), ...unlike];
  const child = spawn(process.execPath, [program, ...words], { stdio: ['pipe', 'pipe', 'inherit'] });
  const line = await new Promise<string>((resolve) => createInterface({ input: child.stdout }).once('line', resolve));
  return { child, port: Number(line.split(':').at(-1)) };
}

/** Types a figure into a field, and settles it. */
export async function typeFigure(field: Locator, text: string): Promise<void> {
  await field.fill(text);
  await field.press('Enter');
}

/** A job that cuts a drawing of SVG text at 20 mm/s, on its Burn stage. @returns its id */
export async function openOwnJob(page: Page, { own, machine }: OwnMachine, body: string): Promise<string> {
  const made = await page.request.post(`${own.address}/api/jobs`, { data: { title: 'Labels', machineId: machine.id } });
  const { id } = (await made.json()) as JobCard;
  await page.goto(`${own.address}/jobs/${id}/art`);
  await bringIn(page, 'labels.svg', svg(body));
  await openStage(page, 'Recipe');
  const cut = page.getByRole('region', { name: 'Cut', exact: true });
  await typeFigure(cut.getByLabel(/^Power/), '60');
  await typeFigure(cut.getByLabel('Speed', { exact: true }), '20');
  await openStage(page, 'Burn');
  await saved(page);
  return id;
}

/** A job with nothing drawn, on a sheet of card, on its Fit stage. @returns its id */
export async function openJobOnCard(page: Page, { own, machine }: OwnMachine, title: string): Promise<string> {
  const post = async (path: string, data: object) =>
    (await (await page.request.post(`${own.address}/api/${path}`, { data })).json()) as { id: string };
  const stock = { name: 'Card stock', thicknessMm: 2, tone: '#EAD9B4', sheetWidth: 300, sheetHeight: 200 };
  const material = await post('materials', { by: 'Ines Varga', material: { ...stock, forbidden: null, recipes: [] } });
  const { id } = await post('jobs', { title, machineId: machine.id, materialId: material.id });
  await page.goto(`${own.address}/jobs/${id}/fit`);
  return id;
}
