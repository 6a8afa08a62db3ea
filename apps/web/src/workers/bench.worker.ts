import {
  type BurnPlan,
  checkJob,
  type Finding,
  type JobDocument,
  planJob,
  prepareJob,
  readSvg,
  type Shop,
  type SvgReading,
  writeGcode,
  writeSvg,
} from '@lambent/core';
import { expose, transfer } from 'comlink';

export type ShopLists = Pick<Shop, 'machines' | 'keys' | 'materials'>;

export interface Planned {
  readonly plan: BurnPlan;
  readonly findings: readonly Finding[];
}

const worker = {
  read(text: string): SvgReading {
    const prefix = crypto.randomUUID().slice(0, 8);
    let next = 0;
    return readSvg(text, () => `${prefix}-${++next}`);
  },

  plan(job: JobDocument, shop: ShopLists): Planned {
    const prepared = prepareJob(job, shop);
    const plan = planJob(prepared);
    const findings = checkJob(prepared, plan);
    const buffers = [plan.back, ...plan.steps.map((step) => step.moves)].flatMap(({ kinds, xs, ys }) => [
      kinds.buffer,
      xs.buffer,
      ys.buffer,
    ]);
    buffers.push(...plan.steps.map((step) => step.durations.buffer));
    return transfer({ plan, findings }, buffers as ArrayBuffer[]);
  },

  gcode(job: JobDocument, shop: ShopLists, title: string): Blob {
    const parts: string[] = [];
    let chunk = '';
    for (const line of writeGcode(planJob(prepareJob(job, shop)), title)) {
      chunk += `${line}\n`;
      if (chunk.length > 1 << 20) {
        parts.push(chunk);
        chunk = '';
      }
    }
    return new Blob([...parts, chunk], { type: 'text/plain' });
  },

  svg(job: JobDocument, width: number, height: number): Blob {
    return new Blob([writeSvg(job.drawing, width, height)], { type: 'image/svg+xml' });
  },
};

export type BenchWorker = typeof worker;
expose(worker);
