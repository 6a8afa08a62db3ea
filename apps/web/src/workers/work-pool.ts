/** Work that was ended because nobody wants it any more. */
export class WorkCancelled extends Error {
  override readonly name = 'WorkCancelled';
}

/** Work that could not be done to its end; the message is a sentence. */
export class WorkFailed extends Error {
  override readonly name = 'WorkFailed';
}

/** What the pool needs of a worker. */
export interface WorkerPort {
  postMessage(message: Asked): void;
  terminate(): void;
  onmessage: ((event: { data: Answered }) => void) | null;
  onerror: ((event: { message?: string; preventDefault?: () => void }) => void) | null;
}

export interface Asked {
  readonly id: number;
  readonly name: string;
  readonly args: readonly unknown[];
}

export type Answered =
  | { readonly id: number; readonly progress: number }
  | { readonly id: number; readonly part: unknown }
  | { readonly id: number; readonly done: unknown }
  | { readonly id: number; readonly failed: string };

/** What a worker of a lane was told, as the page remembers it; a fresh worker knows nothing. */
export type Memory = Map<string, unknown>;

export interface WorkOptions {
  /** Ends this work, and nothing else. */
  readonly signal?: AbortSignal;
  /** Is told how far it is, as a share or a count. */
  readonly progress?: (value: number) => void;
  /** Is given what of its answer comes ahead of the rest, in order. */
  readonly part?: (part: unknown) => void;
  /** It is ended when it takes longer than this once its turn has come. */
  readonly limitMs?: number;
}

interface Task {
  readonly id: number;
  readonly name: string;
  readonly args: (memory: Memory) => readonly unknown[];
  readonly options: WorkOptions;
  readonly resolve: (answer: unknown) => void;
  readonly reject: (error: Error) => void;
  /** Takes back what waits for the signal and the time limit. */
  release: () => void;
}

/** Ten minutes: what takes longer has lost its way. */
const usualLimitMs = 600_000;

/**
 * Work off the page's thread. Each lane has a worker of its own and does one thing at a time, in order; lanes never wait
 * for each other. Each piece of work has an id and a time limit, can be cancelled by itself, and says how far it is. It
 * always comes to an end: an answer, a cancellation, or an error. A worker that dies, or is ended for the sake of what it
 * is at, is replaced by a fresh one for what waits behind.
 */
export class WorkPool<Lane extends string> {
  private readonly lanes = new Map<Lane, LaneWork>();

  constructor(private readonly start: (lane: Lane) => WorkerPort) {}

  /**
   * @param args what the work is given; found when its turn has come, from what the worker knows by then
   * @throws WorkCancelled when the signal ends it; WorkFailed where its worker died or it took too long; an Error with
   * the worker's words where that threw one
   */
  run<T>(
    lane: Lane,
    name: string,
    args: readonly unknown[] | ((memory: Memory) => readonly unknown[]),
    options: WorkOptions = {},
  ): Promise<T> {
    let work = this.lanes.get(lane);
    if (!work) {
      work = new LaneWork(() => this.start(lane));
      this.lanes.set(lane, work);
    }
    return work.run(name, typeof args === 'function' ? args : () => args, options) as Promise<T>;
  }
}

class LaneWork {
  private worker: WorkerPort | null = null;
  private memory: Memory = new Map();
  private readonly waiting: Task[] = [];
  private active: Task | null = null;
  private nextId = 1;

  constructor(private readonly start: () => WorkerPort) {}

  run(name: string, args: Task['args'], options: WorkOptions): Promise<unknown> {
    return new Promise((resolve, reject) => {
      const task: Task = { id: this.nextId++, name, args, options, resolve, reject, release: () => {} };
      const { signal } = options;
      if (signal?.aborted) {
        reject(new WorkCancelled('It was cancelled.'));
        return;
      }
      const cancel = () => this.end(task, new WorkCancelled('It was cancelled.'));
      signal?.addEventListener('abort', cancel);
      task.release = () => signal?.removeEventListener('abort', cancel);
      this.waiting.push(task);
      this.goOn();
    });
  }

  /** Begins the next task, where none is under way. */
  private goOn(): void {
    if (this.active) return;
    const task = this.waiting.shift();
    if (!task) return;
    this.active = task;
    const { limitMs = usualLimitMs } = task.options;
    const late = setTimeout(() => {
      this.end(task, new WorkFailed(`It took longer than ${Math.round(limitMs / 1000)} s and was ended.`));
    }, limitMs);
    const { release } = task;
    task.release = () => {
      clearTimeout(late);
      release();
    };
    try {
      this.worker ??= this.freshWorker();
      this.worker.postMessage({ id: task.id, name: task.name, args: task.args(this.memory) });
    } catch (error) {
      // What cannot be sent has not been; the worker does not know what the page thinks it told it.
      this.end(task, error instanceof Error ? error : new WorkFailed(String(error)));
    }
  }

  private freshWorker(): WorkerPort {
    const worker = this.start();
    this.memory = new Map();
    worker.onmessage = ({ data }) => {
      if (this.worker === worker) this.take(data);
    };
    worker.onerror = (event) => {
      event.preventDefault?.();
      if (this.worker !== worker) return;
      const { active } = this;
      const error = new WorkFailed('The browser ended it: it may have needed more memory than there is.');
      if (active) this.end(active, error);
      else this.dropWorker();
    };
    return worker;
  }

  private take(answer: Answered): void {
    const { active } = this;
    if (active?.id !== answer.id) return;
    if ('progress' in answer) {
      active.options.progress?.(answer.progress);
      return;
    }
    if ('part' in answer) {
      active.options.part?.(answer.part);
      return;
    }
    this.active = null;
    active.release();
    if ('done' in answer) active.resolve(answer.done);
    else active.reject(new Error(answer.failed));
    this.goOn();
  }

  /** Ends one task, whether it waits or is under way; what else waits goes on. */
  private end(task: Task, error: Error): void {
    task.release();
    const place = this.waiting.indexOf(task);
    if (place >= 0) this.waiting.splice(place, 1);
    if (this.active === task) {
      this.active = null;
      this.dropWorker();
    }
    task.reject(error);
    this.goOn();
  }

  private dropWorker(): void {
    this.worker?.terminate();
    this.worker = null;
  }
}
