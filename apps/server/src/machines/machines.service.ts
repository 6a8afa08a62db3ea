import type { MachineUses } from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { notFound } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { MachineEntity } from './machine.entity.ts';

/** The shop's machines, in the order that the shop keeps them; their changes are in machines.writes.ts. */
@Injectable()
export class MachinesService {
  constructor(@InjectRepository(MachineEntity) private readonly rows: Repository<MachineEntity>) {}

  async list(): Promise<Machine[]> {
    const rows = await this.rows.find({ order: { position: 'ASC' } });
    return rows.map(({ definition }) => atItsPort(definition));
  }

  /** @throws PlainError 404 */
  async get(id: string): Promise<Machine> {
    const row = await this.rows.findOneBy({ id });
    if (!row) throw notFound('machine');
    return atItsPort(row.definition);
  }

  /** What goes by a machine. @throws PlainError 404 */
  async uses(id: string): Promise<MachineUses> {
    await this.get(id);
    const jobs: MachineUses['jobs'] = await this.rows.query(
      `SELECT jobs.id, jobs.title FROM jobs
       JOIN versions ON versions.jobId = jobs.id AND versions.number = jobs.version
       WHERE jobs.deletedAt IS NULL AND json_extract(versions.settings, '$.machineId') = ?
       ORDER BY jobs.changed DESC`,
      [id],
    );
    const recipes: MachineUses['recipes'] = await this.rows.query(
      `SELECT materials.id AS materialId, materials.name || ' ' || materials.thicknessMm || ' mm' AS material, count(*) AS count
       FROM recipes JOIN materials ON materials.id = recipes.materialId
       WHERE recipes.machineId = ? GROUP BY materials.id ORDER BY materials.position`,
      [id],
    );
    return { jobs, recipes };
  }
}

/** The demo's stand-ins listen where there was room for them. */
function atItsPort(machine: Machine): Machine {
  const port = config.machinePorts.get(machine.id);
  const { connection } = machine;
  return port && connection?.kind === 'network' ? { ...machine, connection: { ...connection, port } } : machine;
}
