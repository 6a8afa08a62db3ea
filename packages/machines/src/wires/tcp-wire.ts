import { connect } from 'node:net';
import type { Connect } from './wire.ts';

/** Connects to what listens on the network. */
export function tcpWire(host: string, port: number): Connect {
  return (ends) => {
    const socket = connect({ host, port });
    let why: string | null = null;
    socket.setNoDelay(true);
    socket.on('connect', () => ends.opened());
    socket.on('data', (bytes) => ends.received(bytes));
    socket.on('error', (error: NodeJS.ErrnoException) => {
      why = reasonOf(error, host, port);
      socket.destroy();
    });
    socket.on('close', () => ends.closed(why));
    return {
      write: (bytes) => {
        if (!socket.destroyed) socket.write(bytes);
      },
      close: () => socket.destroy(),
    };
  };
}

function reasonOf({ code }: NodeJS.ErrnoException, host: string, port: number): string | null {
  switch (code) {
    case 'ECONNREFUSED':
      return `nothing listens at port ${port} of ${host}`;
    case 'ENOTFOUND':
    case 'EAI_AGAIN':
      return `no computer called ${host} is found`;
    case 'EHOSTUNREACH':
    case 'ENETUNREACH':
    case 'ETIMEDOUT':
      return `${host} cannot be reached`;
    default:
      return null;
  }
}
