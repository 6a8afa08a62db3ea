import type { SerialPort } from 'serialport';
import type { Connect, Wire, WireEnds } from './wire.ts';

/** A serial port of this computer. */
export interface FoundPort {
  /** Its file or name, as it is opened. */
  readonly path: string;
  /** Who made what is plugged in there; null where that is not told. */
  readonly maker: string | null;
}

/**
 * The serial ports that this computer has, those first at which something is plugged in that tells its maker.
 * @throws Error where they cannot be listed here
 */
export async function serialPorts(): Promise<FoundPort[]> {
  const { SerialPort } = await import('serialport');
  const ports = (await SerialPort.list()).map(({ path, manufacturer }) => ({ path, maker: manufacturer ?? null }));
  return ports.sort((a, b) => Number(b.maker !== null) - Number(a.maker !== null) || a.path.localeCompare(b.path));
}

/** Opens a serial port: eight bits, no parity, one stop bit. Nobody else can have it meanwhile. */
export function serialWire(path: string, baud: number): Connect {
  return (ends) => {
    const wire = new SerialWire(ends);
    void wire.open(path, baud);
    return wire;
  };
}

class SerialWire implements Wire {
  private port: SerialPort | null = null;
  private isOver = false;

  constructor(private readonly ends: WireEnds) {}

  async open(path: string, baudRate: number): Promise<void> {
    try {
      const { SerialPort } = await import('serialport');
      const port = new SerialPort({ path, baudRate, autoOpen: false });
      port.on('data', (bytes: Uint8Array) => this.ends.received(bytes));
      port.on('close', () => this.end('the port is gone'));
      port.on('error', () => this.close());
      await new Promise<void>((resolve, reject) => port.open((error) => (error ? reject(error) : resolve())));
      this.port = port;
      if (this.isOver) port.close();
      else this.ends.opened();
    } catch (error) {
      this.end(reasonOf(error as Error, path));
    }
  }

  write(bytes: Uint8Array): void {
    if (!this.isOver) this.port?.write(Buffer.from(bytes));
  }

  close(): void {
    if (this.port?.isOpen) this.port.close();
    this.end(null);
  }

  private end(why: string | null): void {
    if (this.isOver) return;
    this.isOver = true;
    this.ends.closed(why);
  }
}

function reasonOf({ message }: Error, path: string): string {
  if (/No such file|cannot find|File not found/i.test(message))
    return `there is no port ${path}: plug the machine in, or choose another`;
  if (/lock|busy|EBUSY/i.test(message)) return `another program has the port ${path}`;
  if (/denied|EACCES|Permission/i.test(message)) return `Lambent may not open ${path}; docs/running.md says how it may`;
  return `the port ${path} could not be opened: ${message}`;
}
