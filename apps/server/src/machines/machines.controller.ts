import {
  type ConnectionTest,
  type MachineCommand,
  MachineCommandDto,
  type MachineState,
  type MachineUses,
  type SerialPortAnswer,
} from '@lambent/contracts';
import type { Machine } from '@lambent/core/machine';
import type { MachineDriver } from '@lambent/machines';
import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, JsonBody, listOf, oneOf } from '../api/describe.ts';
import { MayCall } from '../people/may-call.ts';
import { ConnectionTester } from './connection-tester.ts';
import { MachineKeeper } from './machine-keeper.ts';
import { MachineLinks } from './machine-links.ts';
import { MachinesService } from './machines.service.ts';

const commands: Record<Exclude<MachineCommand, 'stop'>, (driver: MachineDriver) => void | Promise<void>> = {
  hold: (driver) => driver.hold(),
  resume: (driver) => driver.resume(),
  home: (driver) => driver.tell('home'),
  clear: (driver) => driver.tell('clear'),
  'open-lid': (driver) => driver.tell('lid open'),
  'close-lid': (driver) => driver.tell('lid close'),
  'pointer-on': (driver) => driver.tell('pointer on'),
  'pointer-off': (driver) => driver.tell('pointer off'),
};

@ApiTags('machines')
@Controller('api/machines')
export class MachinesController {
  constructor(
    private readonly machines: MachinesService,
    private readonly links: MachineLinks,
    private readonly keeper: MachineKeeper,
    private readonly tester: ConnectionTester,
  ) {}

  @Get()
  @MayCall('operator')
  @Describe('The machines of the shop, also those that are put away', listOf('Machine'))
  list(): Promise<Machine[]> {
    return this.machines.list();
  }

  @Post()
  @MayCall('manager')
  @JsonBody('Machine')
  @Describe('Takes a machine, under an id of its own', oneOf('Machine', 201), 400, 409)
  add(@Body() body: Record<string, unknown>): Promise<Machine> {
    return this.keeper.add(body);
  }

  @Get('ports')
  @MayCall('manager')
  @Describe('The serial ports of this computer, and which machines are at them', listOf('SerialPort'), 503)
  ports(): Promise<SerialPortAnswer[]> {
    return this.tester.ports();
  }

  @Post('connection-test')
  @MayCall('manager')
  @HttpCode(200)
  @JsonBody('Machine')
  @Describe('Finds out what answers where a machine is said to be reached', oneOf('ConnectionTest'), 400)
  test(@Body() body: Record<string, unknown>): Promise<ConnectionTest> {
    return this.tester.test(body);
  }

  @Put(':id')
  @MayCall('manager')
  @JsonBody('Machine')
  @Describe('Changes a machine; the line to it follows', oneOf('Machine'), 400, 404, 409)
  change(@Param('id') id: string, @Body() body: Record<string, unknown>): Promise<Machine> {
    return this.keeper.change(id, body);
  }

  @Get(':id/uses')
  @MayCall('operator')
  @Describe('The jobs and recipes that go by a machine', oneOf('MachineUses'), 404)
  uses(@Param('id') id: string): Promise<MachineUses> {
    return this.machines.uses(id);
  }

  @Get('states')
  @MayCall('operator')
  @Describe('Where every machine is, and what it does', listOf('MachineState'))
  states(): MachineState[] {
    return this.links.states();
  }

  @Post(':id/commands')
  @MayCall('operator')
  @Describe('Tells a machine a word; answered when it has done it', oneOf('MachineState'), 400, 404, 409)
  async command(@Param('id') id: string, @Body() { command }: MachineCommandDto): Promise<MachineState> {
    await (command === 'stop' ? this.links.stop(id) : commands[command](this.links.get(id)));
    return this.links.state(id);
  }
}
