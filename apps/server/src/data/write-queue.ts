import type { StorageState } from '@lambent/contracts';
import { Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import { callerId } from '../common/caller.ts';
import { PlainError } from '../common/plain-error.ts';
import { errorOf } from '../common/refusals.ts';
import { EventHub } from '../events/event-hub.ts';
import type { StorageTrouble } from './storage-trouble.ts';
import { Writer } from './writer.ts';
import type { ArgumentsOf, ResultOf, Writes } from './writes.ts';

/** How long until what must be written is tried again, and until a disk that failed is tried. */
const retryMs = 2000;

/**
 * The one way to change the database: writes are done one after the other, each in a transaction of its own, by a thread
 * of their own (write-thread.ts). What is resolved is on the disk; what is rejected changed nothing.
 */
@Injectable()
export class WriteQueue implements OnApplicationShutdown {
  private readonly log = new Logger('Storage');
  private trouble: (StorageTrouble & { readonly since: Date }) | null = null;
  private closing = false;
  private probing: NodeJS.Timeout | null = null;

  constructor(
    private readonly hub: EventHub,
    private readonly writer: Writer,
  ) {}

  /** Whether what is sent can be kept, as the page is told. */
  get state(): StorageState {
    const { trouble } = this;
    return trouble ? { ok: false, since: trouble.since.toISOString(), message: sentence(trouble) } : { ok: true };
  }

  /**
   * Does one write.
   * @throws PlainError what the write refused; 507 or 503 where the disk or the database could not be written to
   */
  async do<Name extends keyof Writes>(name: Name, ...args: ArgumentsOf<Name>): Promise<ResultOf<Name>> {
    const answer = await this.writer.write(name, args, callerId());
    if ('trouble' in answer) throw this.isTroubled(answer.trouble);
    this.isWell();
    if ('done' in answer) return answer.done as ResultOf<Name>;
    throw errorOf(answer.refused);
  }

  /** Does a write that nobody can repeat by hand: where the disk fails, again and again until it is done. */
  async insist<Name extends keyof Writes>(name: Name, ...args: ArgumentsOf<Name>): Promise<ResultOf<Name>> {
    for (;;) {
      try {
        return await this.do(name, ...args);
      } catch (error) {
        if (this.closing || !(error instanceof StorageError)) throw error;
        await new Promise((resolve) => setTimeout(resolve, retryMs));
      }
    }
  }

  /** Notes that the disk could not be written to, also where it was no write of the database. @returns what to throw */
  isTroubled(trouble: StorageTrouble): StorageError {
    if (this.trouble?.code !== trouble.code) {
      this.trouble = { ...trouble, since: this.trouble?.since ?? new Date() };
      this.log.error(sentence(this.trouble));
      this.hub.say({ type: 'storage', storage: this.state });
    }
    this.probing ??= setInterval(() => void this.probe(), retryMs);
    return new StorageError(this.trouble);
  }

  private isWell(): void {
    if (!this.trouble) return;
    this.trouble = null;
    if (this.probing) clearInterval(this.probing);
    this.probing = null;
    this.log.warn('What is sent is saved again.');
    this.hub.say({ type: 'storage', storage: this.state });
  }

  /** Finds out by itself when the disk can be written to again. */
  private async probe(): Promise<void> {
    // Whatever the answer is, `do` has taken it in.
    await this.do('probe', new Date()).catch(() => {});
  }

  async onApplicationShutdown(): Promise<void> {
    this.closing = true;
    if (this.probing) clearInterval(this.probing);
    await this.writer.close();
  }
}

/** A write that could not be done because of the disk; nothing of it was done. */
export class StorageError extends PlainError {
  constructor(trouble: StorageTrouble & { since: Date }) {
    super(trouble.code === 'locked' ? 503 : 507, trouble.code, sentence(trouble), {
      since: trouble.since.toISOString(),
    });
  }
}

function sentence({ what, remedy, since }: StorageTrouble & { since: Date }): string {
  return `Not saved: ${what}. Nothing has been saved since ${since.toISOString().slice(11, 16)} UTC. ${remedy}`;
}
