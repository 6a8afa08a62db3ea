import type { Machine } from '@lambent/core/machine';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { config } from '../config.ts';
import { MachineEntity } from './machine.entity.ts';

/** The shop's machines, in the order that the shop keeps them. */
@Injectable()
export class MachinesService {
  constructor(@InjectRepository(MachineEntity) private readonly rows: Repository<MachineEntity>) {}

  async list(): Promise<Machine[]> {
    const rows = await this.rows.find({ order: { position: 'ASC' } });
    return rows.map(({ definition }) => {
      const port = config.machinePorts.get(definition.id);
      return port ? { ...definition, address: { ...definition.address, port } } : definition;
    });
  }
}
