import type { ColourKey } from '@lambent/core/colours';
import type { Machine } from '@lambent/core/machine';
import type { Material, Shop } from '@lambent/core/recipes';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { config } from '../config.ts';
import { materialOf } from './book-rows.ts';
import { ColourKeyEntity, MachineEntity, MaterialEntity } from './entities.ts';

/** The shop's machines, materials and keys, in the order the shop keeps them. */
@Injectable()
export class ShopService {
  constructor(
    @InjectRepository(MachineEntity) private readonly machineRows: Repository<MachineEntity>,
    @InjectRepository(ColourKeyEntity) private readonly keyRows: Repository<ColourKeyEntity>,
    @InjectRepository(MaterialEntity) private readonly materialRows: Repository<MaterialEntity>,
  ) {}

  async machines(): Promise<Machine[]> {
    const rows = await this.machineRows.find({ order: { position: 'ASC' } });
    return rows.map(({ definition }) => {
      const port = config.machinePorts.get(definition.id);
      return port ? { ...definition, address: { ...definition.address, port } } : definition;
    });
  }

  async keys(): Promise<ColourKey[]> {
    return (await this.keyRows.find({ order: { position: 'ASC' } })).map(({ definition }) => definition);
  }

  async materials(): Promise<Material[]> {
    const rows = await this.materialRows.find({
      order: { position: 'ASC', recipes: { id: 'ASC' } },
      relations: { recipes: true },
    });
    return rows.map(materialOf);
  }

  async everything(): Promise<Pick<Shop, 'machines' | 'keys' | 'materials'>> {
    const [machines, keys, materials] = await Promise.all([this.machines(), this.keys(), this.materials()]);
    return { machines, keys, materials };
  }
}
