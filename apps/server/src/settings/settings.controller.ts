import { type Settings, SettingsDto } from '@lambent/contracts';
import { Body, Controller, Get, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { SettingsService } from './settings.service.ts';

@ApiTags('settings')
@Controller('api/settings')
export class SettingsController {
  constructor(private readonly settings: SettingsService) {}

  @Get()
  @MayCall('operator')
  @Describe('What the shop has settled for every job', oneOf('Settings'))
  get(): Promise<Settings> {
    return this.settings.get();
  }

  @Put()
  @MayCall('manager')
  @Describe('Settles what is sent, and leaves the rest', oneOf('Settings'), 400)
  put(@Body() settings: SettingsDto): Promise<Settings> {
    return this.settings.settle(settings);
  }
}
