import type { SendInDto, SendingWishDto } from '@lambent/contracts';
import { data, raw, server } from '../server.ts';

const withToken = (token: string) => ({ path: { token } });

/** What the server is asked by who sends drawings in. */
export const senderApi = {
  sendingQuotes: (token: string) => data(server.GET('/api/drop-off/{token}/quotes', { params: withToken(token) })),
  acceptOwnQuote: (token: string, number: number) =>
    data(server.POST('/api/drop-off/{token}/quotes/accepted', { params: withToken(token), body: { number } })),
  dropOff: () => data(server.GET('/api/drop-off')),
  beginSending: (file: File) =>
    data(server.POST('/api/drop-off', { params: { query: { name: file.name } }, ...raw(new Blob([file])) })),
  sending: (token: string) => data(server.GET('/api/drop-off/{token}', { params: withToken(token) })),
  wishSending: (token: string, body: SendingWishDto) =>
    data(server.PUT('/api/drop-off/{token}/wish', { params: withToken(token), body })),
  sendIn: (token: string, body: SendInDto) =>
    data(server.POST('/api/drop-off/{token}/send', { params: withToken(token), body })),
  beginNewFile: (token: string, file: File) =>
    data(
      server.POST('/api/drop-off/{token}/files', {
        params: { path: { token }, query: { name: file.name } },
        ...raw(new Blob([file])),
      }),
    ),
  sendNewFile: (token: string) => data(server.POST('/api/drop-off/{token}/send-file', { params: withToken(token) })),
  sendingMessages: (token: string) => data(server.GET('/api/drop-off/{token}/messages', { params: withToken(token) })),
  writeToWorkshop: (token: string, text: string) =>
    data(server.POST('/api/drop-off/{token}/messages', { params: withToken(token), body: { text } })),
  withdrawSending: (token: string) => data(server.DELETE('/api/drop-off/{token}', { params: withToken(token) })),
  ownSendings: () => data(server.GET('/api/own-sendings')),
};
