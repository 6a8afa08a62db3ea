import { type EventNews, LatestEvents } from './latest-events.ts';
import { listenWith } from './listen-with.ts';

/*
 * One event stream for all tabs of this browser: a browser opens only a few lines to one server, and each tab with a
 * stream of its own would use one up.
 */

/** As far as it is known here; the lib of the page does not know shared workers. */
declare const self: { onconnect: ((event: { ports: readonly MessagePort[] }) => void) | null };

const ports = new Set<MessagePort>();
const latest = new LatestEvents();

function tell(news: EventNews): void {
  latest.take(news);
  for (const port of ports) port.postMessage(news);
}

listenWith(tell);

self.onconnect = ({ ports: [port] }) => {
  ports.add(port);
  port.onmessage = ({ data }) => {
    if (data === 'bye') ports.delete(port);
  };
  // A tab that comes later is told how things stand.
  for (const news of latest.all()) port.postMessage(news);
};
