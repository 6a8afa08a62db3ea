import type { MachineState, RunAnswer, ServerEvent, StorageState } from '@lambent/contracts';
import { create } from 'zustand';

interface Live {
  /** False while the server does not answer. */
  connected: boolean;
  machines: Readonly<Record<string, MachineState>>;
  /** Runs that were heard of since the page was opened, by id. */
  runs: Readonly<Record<string, RunAnswer>>;
  /** Whether the server can keep what it is sent. */
  storage: StorageState;
}

/** What the machines do now, as the server tells it. */
export const useLive = create<Live>(() => ({ connected: true, machines: {}, runs: {}, storage: { ok: true } }));

/** Opens the event stream; the browser opens it again by itself when it breaks. */
export function listenToServer(): void {
  const source = new EventSource('/api/events');
  source.onopen = () => useLive.setState({ connected: true });
  source.onerror = () => useLive.setState({ connected: false });
  source.onmessage = (message) => {
    const event = JSON.parse(message.data) as ServerEvent;
    switch (event.type) {
      case 'machine':
        useLive.setState(({ machines }) => ({ machines: { ...machines, [event.machine.machineId]: event.machine } }));
        break;
      case 'run':
        takeRun(event.run);
        break;
      case 'storage':
        useLive.setState({ storage: event.storage });
    }
  };
}

/** A run as it is now. */
export function takeRun(run: RunAnswer): void {
  useLive.setState(({ runs }) => ({ runs: { ...runs, [run.id]: run } }));
}
