import { SettingsDto } from '@lambent/contracts';
import { usualFileName } from '@lambent/core';
import { Body, Controller, Get, Put } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { SettingEntity } from '../data/entities.ts';

/** What the shop has settled for every job. */
@Controller('api/settings')
export class SettingsController {
  constructor(@InjectRepository(SettingEntity) private readonly settings: Repository<SettingEntity>) {}

  @Get()
  async get(): Promise<SettingsDto> {
    const row = await this.settings.findOneBy({ name: 'fileNames' });
    return { fileNames: row?.value ?? usualFileName };
  }

  @Put()
  async put(@Body() { fileNames }: SettingsDto): Promise<SettingsDto> {
    await this.settings.save({ name: 'fileNames', value: fileNames });
    return this.get();
  }
}
