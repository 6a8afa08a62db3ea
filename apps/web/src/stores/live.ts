import type { MachineState, RunAnswer, StorageState } from '@lambent/contracts';
import { create } from 'zustand';
import type { EventNews } from './latest-events.ts';
import { listenWith } from './listen-with.ts';

interface Live {
  /** False while the server does not answer. */
  connected: boolean;
  machines: Readonly<Record<string, MachineState>>;
  /** Runs that were heard of since the page was opened, by id. */
  runs: Readonly<Record<string, RunAnswer>>;
  /** How often the machines of the shop were changed since the page was opened. */
  machinesChanged: number;
  /** How often the Desk's jobs were changed since the page was opened: saved, moved, burnt, or worked out anew. */
  deskChanged: number;
  /** The last version of each job that was saved since the page was opened, by id. */
  jobVersions: Readonly<Record<string, number>>;
  /** Whether the server can keep what it is sent. */
  storage: StorageState;
}

/** What the machines do now, as the server tells it. */
export const useLive = create<Live>(() => ({
  connected: true,
  machines: {},
  runs: {},
  machinesChanged: 0,
  deskChanged: 0,
  jobVersions: {},
  storage: { ok: true },
}));

/** Hears what happens on the server: over one line for all tabs of this browser, where it has shared workers. */
export function listenToServer(): void {
  if (typeof SharedWorker === 'undefined') {
    listenAlone();
    return;
  }
  const worker = new SharedWorker(new URL('./events.shared-worker.ts', import.meta.url), { type: 'module' });
  worker.onerror = listenAlone;
  worker.port.onmessage = ({ data }: MessageEvent<EventNews>) => take(data);
  window.addEventListener('pagehide', () => worker.port.postMessage('bye'));
  // A page that comes back out of the browser's memory said bye when it went.
  window.addEventListener('pageshow', (event) => event.persisted && listenToServer());
}

/** Opens an event stream of this tab's own. */
function listenAlone(): void {
  listenWith(take);
}

function take(news: EventNews): void {
  if ('connected' in news) {
    useLive.setState({ connected: news.connected });
    return;
  }
  const { event } = news;
  switch (event.type) {
    case 'machine':
      useLive.setState(({ machines }) => ({ machines: { ...machines, [event.machine.machineId]: event.machine } }));
      break;
    case 'run': {
      const known = useLive.getState().runs[event.run.id];
      takeRun(event.run);
      // Where its job stands goes with its beginning and its end.
      if (known?.status !== event.run.status) useLive.setState(countDeskChange);
      break;
    }
    case 'machines':
      useLive.setState(({ machinesChanged }) => ({ machinesChanged: machinesChanged + 1 }));
      break;
    case 'job':
      useLive.setState(({ jobVersions, deskChanged }) => ({
        jobVersions: { ...jobVersions, [event.jobId]: event.version },
        deskChanged: deskChanged + 1,
      }));
      break;
    case 'desk':
      useLive.setState(countDeskChange);
      break;
    case 'storage':
      useLive.setState({ storage: event.storage });
  }
}

function countDeskChange({ deskChanged }: Live): Partial<Live> {
  return { deskChanged: deskChanged + 1 };
}

/** A run as it is now. */
export function takeRun(run: RunAnswer): void {
  useLive.setState(({ runs }) => ({ runs: { ...runs, [run.id]: run } }));
}
