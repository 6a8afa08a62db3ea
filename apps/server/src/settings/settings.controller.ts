import { SettingsDto } from '@lambent/contracts';
import { usualFileName } from '@lambent/core/formats';
import { freeOfCharge, pricingFromJson } from '@lambent/core/recipes';
import { speedUnits } from '@lambent/core/units';
import { Body, Controller, Get, Put } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { SettingEntity } from '../data/entities.ts';
import { WriteQueue } from '../data/write-queue.ts';

/** What the shop has settled for every job. */
@Controller('api/settings')
export class SettingsController {
  constructor(
    @InjectRepository(SettingEntity) private readonly settings: Repository<SettingEntity>,
    private readonly writes: WriteQueue,
  ) {}

  @Get()
  async get(): Promise<SettingsDto> {
    const rows = new Map((await this.settings.find()).map(({ name, value }) => [name, value]));
    const pricing = rows.get('pricing');
    return {
      fileNames: rows.get('fileNames') ?? usualFileName,
      pricing: pricing === undefined ? freeOfCharge : pricingFromJson(JSON.parse(pricing)),
      speedUnit: speedUnits.find((unit) => unit === rows.get('speedUnit')) ?? 'mm/s',
    };
  }

  @Put()
  async put(@Body() { fileNames, pricing, speedUnit }: SettingsDto): Promise<SettingsDto> {
    const rows = [{ name: 'fileNames', value: fileNames }];
    if (pricing) rows.push({ name: 'pricing', value: JSON.stringify(pricingFromJson(pricing)) });
    if (speedUnit) rows.push({ name: 'speedUnit', value: speedUnit });
    await this.writes.do('settle', rows);
    return this.get();
  }
}
