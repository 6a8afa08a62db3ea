import type { Settings, SettingsDto } from '@lambent/contracts';
import { usualFileName } from '@lambent/core/formats';
import { freeOfCharge, pricingFromJson } from '@lambent/core/recipes';
import { speedUnits } from '@lambent/core/units';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { WriteQueue } from '../data/write-queue.ts';
import { SettingEntity } from './setting.entity.ts';

/** What the shop has settled for every job, each with a usual value where it has not. */
@Injectable()
export class SettingsService {
  constructor(
    @InjectRepository(SettingEntity) private readonly rows: Repository<SettingEntity>,
    private readonly writes: WriteQueue,
  ) {}

  async get(): Promise<Settings> {
    const rows = new Map((await this.rows.find()).map(({ name, value }) => [name, value]));
    const pricing = rows.get('pricing');
    return {
      fileNames: rows.get('fileNames') ?? usualFileName,
      pricing: pricing === undefined ? freeOfCharge : pricingFromJson(JSON.parse(pricing)),
      speedUnit: speedUnits.find((unit) => unit === rows.get('speedUnit')) ?? 'mm/s',
    };
  }

  /** Settles what is sent, and leaves the rest. @throws NotAPriceList */
  async settle({ fileNames, pricing, speedUnit }: SettingsDto): Promise<Settings> {
    const rows = [{ name: 'fileNames', value: fileNames }];
    if (pricing) rows.push({ name: 'pricing', value: JSON.stringify(pricingFromJson(pricing)) });
    if (speedUnit) rows.push({ name: 'speedUnit', value: speedUnit });
    await this.writes.do('settle', rows);
    return this.get();
  }
}
