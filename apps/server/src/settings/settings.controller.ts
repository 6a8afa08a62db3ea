import { SettingsDto } from '@lambent/contracts';
import { Body, Controller, Get, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { SettingsService } from './settings.service.ts';

@ApiTags('settings')
@Controller('api/settings')
export class SettingsController {
  constructor(private readonly settings: SettingsService) {}

  @Get()
  get(): Promise<SettingsDto> {
    return this.settings.get();
  }

  @Put()
  put(@Body() settings: SettingsDto): Promise<SettingsDto> {
    return this.settings.settle(settings);
  }
}
