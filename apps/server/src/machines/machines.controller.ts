import { MachineCommandDto, type MachineState } from '@lambent/contracts';
import type { Machine } from '@lambent/core';
import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { ShopService } from '../data/shop.service.ts';
import { MachineLinks } from './machine-links.ts';

@ApiTags('machines')
@Controller('api/machines')
export class MachinesController {
  constructor(
    private readonly shop: ShopService,
    private readonly links: MachineLinks,
  ) {}

  @Get()
  list(): Promise<Machine[]> {
    return this.shop.machines();
  }

  @Get('states')
  states(): MachineState[] {
    return this.links.states();
  }

  @Post(':id/commands')
  @HttpCode(200)
  async command(@Param('id') id: string, @Body() { command }: MachineCommandDto): Promise<MachineState> {
    const link = this.links.get(id);
    await link.command(command);
    return link.state;
  }
}
