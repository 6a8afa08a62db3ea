import type { MigrationInterface, QueryRunner } from 'typeorm';

interface Before {
  name?: string;
  source?: string;
  ratedW?: number;
  address?: object;
}

/** A machine says what makes its beam, and how it is reached, no longer in one text and as a port alone. */
export class MachineBeams1765300000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const rows = (await runner.query('SELECT id, definition FROM machines')) as { id: string; definition: string }[];
    for (const { id, definition } of rows) {
      const { source = '', address, ...rest }: Before = JSON.parse(definition);
      const said = /([\d.]+)\s*W\b/.exec(source);
      const kind = /diode/i.test(source) ? 'diode' : /fib(re|er)/i.test(source) ? 'fibre' : 'co2';
      const machine = {
        kind,
        ...rest,
        ratedW: rest.ratedW ?? (said ? Number(said[1]) : usualW[kind]),
        connection: address ? { kind: 'network', ...address } : null,
      };
      await runner.query('UPDATE machines SET definition = ? WHERE id = ?', [JSON.stringify(machine), id]);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    const rows = (await runner.query('SELECT id, definition FROM machines')) as { id: string; definition: string }[];
    for (const { id, definition } of rows) {
      const { kind, connection, ...rest } = JSON.parse(definition);
      const { host = '127.0.0.1', port = 7451 } = connection ?? {};
      const source = `${kind === 'co2' ? 'CO₂' : kind} ${rest.ratedW} W`;
      const machine = { ...rest, source, address: { host, port } };
      await runner.query('UPDATE machines SET definition = ? WHERE id = ?', [JSON.stringify(machine), id]);
    }
  }
}

/** What machines of a kind have as a rule, where the old text said no power. */
const usualW = { co2: 60, diode: 10, fibre: 30 };
