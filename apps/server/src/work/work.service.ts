import { MessageChannel, type MessagePort } from 'node:worker_threads';
import type { Reading } from '@lambent/core/formats';
import { Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import { Piscina } from 'piscina';
import { PlainError } from '../common/plain-error.ts';
import { errorOf, refusalOf } from '../common/refusals.ts';
import { storageTrouble } from '../data/storage-trouble.ts';
import { WriteQueue } from '../data/write-queue.ts';
import type { PictureFacts } from './picture-facts.ts';
import type * as tasks from './tasks.ts';
import type { FromTask, PictureAnswer, TaskAnswer } from './worker.ts';

interface LaneLimits {
  /** As many wait; what comes then is refused. */
  readonly queue: number;
  readonly seconds: number;
  readonly megabytes: number;
}

/**
 * Each kind of work has a thread of its own, so that none waits for another: a save never for a plan. What takes longer
 * or more memory than its limits is ended, and its thread with it.
 */
const lanes = {
  saves: { queue: 2000, seconds: 60, megabytes: 1500 },
  plans: { queue: 20, seconds: 300, megabytes: 3000 },
  files: { queue: 50, seconds: 60, megabytes: 1500 },
  facts: { queue: 100, seconds: 5, megabytes: 500 },
  sharing: { queue: 5, seconds: 120, megabytes: 2000 },
  estimates: { queue: 20, seconds: 120, megabytes: 2000 },
  sendings: { queue: 60, seconds: 30, megabytes: 800 },
  pictures: { queue: 500, seconds: 10, megabytes: 1000 },
} satisfies Record<string, LaneLimits>;
type Lane = keyof typeof lanes;

type Work = typeof tasks;

/** Heavy work, done in worker threads: nothing that a person sends is read by the server's own thread. */
@Injectable()
export class WorkService implements OnApplicationShutdown {
  private readonly threads = new Map<Lane, Piscina>();
  private closing = false;

  constructor(private readonly writes: WriteQueue) {
    // The first save does not wait for its thread to come up.
    this.lane('saves');
  }

  /**
   * @param picture gives the pictures that burn
   * @param signal ends it where nobody waits for it any more
   */
  planToFile(
    task: Parameters<Work['planToFile']>[0],
    picture: tasks.ReadPicture,
    signal?: AbortSignal,
  ): Promise<tasks.PlannedProgram> {
    return this.run('plans', 'planToFile', task, 'This job', { picture, given: signal });
  }

  /** As `planToFile`, without a program. */
  report(
    task: Parameters<Work['report']>[0],
    picture: tasks.ReadPicture,
    signal?: AbortSignal,
  ): ReturnType<Work['report']> {
    return this.run('plans', 'report', task, 'This job', { picture, given: signal });
  }

  /** What all runs of a version take and cost. @param picture gives the pictures that burn */
  estimate(task: Parameters<Work['estimate']>[0], picture: tasks.ReadPicture): ReturnType<Work['estimate']> {
    return this.run('estimates', 'estimate', task, 'This job', { picture });
  }

  /** Several jobs as one, on sheets that they share. @param picture gives the pictures that burn */
  shareSheets(task: Parameters<Work['shareSheets']>[0], picture: tasks.ReadPicture): ReturnType<Work['shareSheets']> {
    return this.run('sharing', 'shareSheets', task, 'Laying these jobs out', { picture });
  }

  /** The rest of a program, from one of its lines on. */
  continueToFile(task: Parameters<Work['continueToFile']>[0]): ReturnType<Work['continueToFile']> {
    return this.run('plans', 'continueToFile', task, 'The rest of this run');
  }

  /** The ways of a head around a run. */
  walk(task: Parameters<Work['walk']>[0], signal?: AbortSignal): ReturnType<Work['walk']> {
    return this.run('plans', 'walk', task, 'This job', { given: signal });
  }

  /** What the seconds of a timing card tell of its machine. */
  fitTiming(task: Parameters<Work['fitTiming']>[0]): Promise<ReturnType<Work['fitTiming']>> {
    return this.run('plans', 'fitTiming', task, 'The timing card');
  }

  readDrawing(task: Parameters<Work['readDrawing']>[0]): Promise<Reading> {
    return this.run('files', 'readDrawing', task, 'The drawing');
  }

  bringIn(task: Parameters<Work['bringIn']>[0]): Promise<tasks.BroughtIn> {
    return this.run('files', 'bringIn', task, 'The drawing');
  }

  describeFont(bytes: Uint8Array): Promise<ReturnType<Work['describeFont']>> {
    return this.run('facts', 'describeFont', bytes, 'The font');
  }

  describePicture(bytes: Uint8Array): Promise<PictureFacts> {
    return this.run('facts', 'describePicture', bytes, 'The picture');
  }

  /** A card's picture, as SVG. @param picture gives the pictures that the job shows. */
  picture(task: Parameters<Work['picture']>[0], picture: tasks.ReadPicture): ReturnType<Work['picture']> {
    return this.run('pictures', 'picture', task, 'The picture of this job', { picture });
  }

  /** A page to draw on, as a file. */
  drawingTemplate(task: Parameters<Work['drawingTemplate']>[0]): ReturnType<Work['drawingTemplate']> {
    return this.run('pictures', 'drawingTemplate', task, 'The template');
  }

  /** A quote as PDF. */
  quotePdf(task: Parameters<Work['quotePdf']>[0]): ReturnType<Work['quotePdf']> {
    return this.run('pictures', 'quotePdf', task, 'The quote');
  }

  /** What a file that was sent comes to. */
  lookAtSending(task: Parameters<Work['lookAtSending']>[0]): ReturnType<Work['lookAtSending']> {
    return this.run('sendings', 'lookAtSending', task, task.file);
  }

  packJobFile(task: Parameters<Work['packJobFile']>[0]): Promise<Uint8Array> {
    return this.run('files', 'packJobFile', task, 'The job’s file');
  }

  readJobFile(bytes: Uint8Array): Promise<ReturnType<Work['readJobFile']>> {
    return this.run('files', 'readJobFile', bytes, 'The job’s file');
  }

  packDocument(bytes: Uint8Array): Promise<ReturnType<Work['packDocument']>> {
    return this.run('saves', 'packDocument', bytes, 'This job');
  }

  async onApplicationShutdown(): Promise<void> {
    this.closing = true;
    await Promise.all(Array.from(this.threads.values(), (threads) => threads.destroy()));
  }

  private lane(lane: Lane): Piscina {
    let threads = this.threads.get(lane);
    if (!threads) {
      threads = new Piscina({
        filename: new URL('./worker.js', import.meta.url).href,
        minThreads: lane === 'saves' ? 1 : 0,
        maxThreads: 1,
        // Else what waits is put behind what came after it.
        stricterFIFO: true,
        idleTimeout: 60_000,
        maxQueue: lanes[lane].queue,
        resourceLimits: { maxOldGenerationSizeMb: lanes[lane].megabytes },
      });
      this.threads.set(lane, threads);
    }
    return threads;
  }

  /**
   * @param what begins the sentence that says why it could not be done
   * @throws PlainError what is wrong with what was sent; 503 where too many wait, 422 where it is too much
   */
  private async run<T>(
    lane: Lane,
    name: keyof Work,
    task: unknown,
    what: string,
    { picture, given }: { picture?: tasks.ReadPicture; given?: AbortSignal } = {},
  ): Promise<T> {
    const limits = lanes[lane];
    const threads = this.lane(lane);
    if (threads.queueSize >= limits.queue) {
      throw new PlainError(503, 'too-busy', `${what} has to wait: too much is asked of the server now. Try again.`);
    }
    // The time runs from when its turn has come.
    const turn = new AbortController();
    let timer: NodeJS.Timeout | null = null;
    let tooLong = false;
    const begin = () => {
      timer = setTimeout(() => {
        tooLong = true;
        turn.abort();
      }, limits.seconds * 1000);
    };
    const giveUp = () => turn.abort();
    given?.addEventListener('abort', giveUp);
    const { port1, port2 } = new MessageChannel();
    port1.on('message', (said: FromTask) => {
      if (said.kind === 'begun') begin();
      else void answerPicture(port1, said.id, picture);
    });
    try {
      const wanted = { name, task, line: port2 };
      const answer: TaskAnswer = await threads.run(wanted, { signal: turn.signal, transferList: [port2] });
      if ('done' in answer) return answer.done as T;
      throw errorOf(answer.refused);
    } catch (error) {
      if (this.closing) throw new PlainError(503, 'closing', 'Lambent is being ended.');
      if (given?.aborted) throw new PlainError(499, 'nobody-waits', `${what} is no longer waited for.`);
      if (tooLong) {
        throw new PlainError(
          422,
          'takes-too-long',
          `${what} takes longer than ${limits.seconds} s to work out. Make it simpler, or part it.`,
        );
      }
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY') {
        throw new PlainError(
          422,
          'too-large',
          `${what} takes more memory than there is for it. Make it simpler, or part it.`,
        );
      }
      const trouble = storageTrouble(error);
      throw trouble ? this.writes.isTroubled(trouble) : error;
    } finally {
      if (timer) clearTimeout(timer);
      given?.removeEventListener('abort', giveUp);
      port1.close();
    }
  }
}

/** Gives a task a picture that it asked for; what went wrong inside is put into the log here, and only told there. */
async function answerPicture(port: MessagePort, id: string, picture: tasks.ReadPicture | undefined): Promise<void> {
  const asked = picture?.(id) ?? Promise.reject(new Error('This work needs no pictures'));
  const answer: PictureAnswer = await asked.then(
    (bytes) => ({ id, bytes }),
    (error) => {
      const refused = refusalOf(error);
      if (!refused) new Logger(WorkService.name).error(`The picture ${id} cannot be read`, error);
      return { id, refused };
    },
  );
  port.postMessage(answer);
}
