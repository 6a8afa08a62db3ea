import type { BlockedDetails, ErrorAnswer } from '@lambent/contracts';
import { Unusable } from './unusable.ts';

export interface ServerOptions {
  server?: string;
  token?: string;
}

/** What a server refuses, in its words. */
export class ServerRefusal extends Unusable {
  constructor(
    message: string,
    readonly code: string,
    /** What the checks found, where that is why. */
    readonly findings: BlockedDetails['findings'],
  ) {
    super(message);
  }
}

const usualAddress = 'http://127.0.0.1:7450';

/** A running Lambent, asked over HTTP: the one that is named, else that of LAMBENT_SERVER, else the one on this machine. */
export class Server {
  readonly address: string;
  private readonly token: string | undefined;

  /** @throws Unusable when the address is none */
  constructor({ server, token }: ServerOptions) {
    const address = server ?? process.env.LAMBENT_SERVER ?? usualAddress;
    if (!URL.canParse(address) || !/^https?:/.test(address)) {
      throw new Unusable(`--server must be an address such as ${usualAddress}, and not “${address}”.`);
    }
    this.address = address.replace(/\/+$/, '');
    this.token = token ?? process.env.LAMBENT_TOKEN;
  }

  /** @throws Unusable when the server does not answer, ServerRefusal when it refuses */
  async ask<T>(method: string, path: string, body?: unknown, type = 'application/json'): Promise<T> {
    const raw = body instanceof Uint8Array || typeof body === 'string' ? body : JSON.stringify(body);
    let response: Response;
    try {
      response = await fetch(`${this.address}${path}`, {
        method,
        headers: {
          ...(body === undefined ? {} : { 'Content-Type': type }),
          ...(this.token === undefined ? {} : { Authorization: `Bearer ${this.token}` }),
        },
        ...(body === undefined ? {} : { body: raw as BodyInit }),
      });
    } catch {
      throw new Unusable(
        `No Lambent answers at ${this.address}. Start it with npm run demo, or name another with --server.`,
      );
    }
    const text = await response.text();
    if (response.ok) return (text === '' ? undefined : JSON.parse(text)) as T;
    throw refusalIn(text, response.status, this.address);
  }
}

function refusalIn(text: string, status: number, address: string): Unusable {
  try {
    const { error } = JSON.parse(text) as ErrorAnswer;
    return new ServerRefusal(error.message, error.code, (error.details as BlockedDetails | undefined)?.findings ?? []);
  } catch {
    return new Unusable(`${address} answers ${status}, and not as Lambent does. Is the address right?`);
  }
}
