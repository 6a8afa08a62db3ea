import {
  ChangePersonDto,
  type InvitationAnswer,
  InviteDto,
  JoinDto,
  NewPersonDto,
  type PersonAnswer,
  type SessionAnswer,
} from '@lambent/contracts';
import { Body, Controller, Get, Param, Patch, Post, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Describe, listOf, oneOf } from '../api/describe.ts';
import { CallersSession } from './access.guard.ts';
import { MayCall, MayCallSignedIn } from './may-call.ts';
import type { SessionEntity } from './people.entities.ts';
import { PeopleService } from './people.service.ts';
import { giveToken, tokenOf } from './session-cookie.ts';

@ApiTags('people')
@Controller('api/people')
export class PeopleController {
  constructor(private readonly people: PeopleService) {}

  @Get()
  @MayCallSignedIn('operator')
  @Describe('All who are of the shop, or were, by their names', listOf('Person'), 401, 403)
  list(): Promise<PersonAnswer[]> {
    return this.people.list();
  }

  @Post('manager')
  @MayCall('everybody')
  @Describe('Makes the first manager of a shop, who is signed in at once', oneOf('Session', 201), 400, 409)
  async addFirstManager(
    @Body() person: NewPersonDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionAnswer> {
    return this.signedIn(await this.people.addFirstManager(person, tokenOf(request)), request, response);
  }

  @Post('invitations')
  @MayCallSignedIn('manager')
  @Describe('An invitation, by which somebody may join within a week', oneOf('Invitation', 201), 400, 401, 403)
  invite(@Body() { role }: InviteDto, @CallersSession() session: SessionEntity): Promise<InvitationAnswer> {
    return this.people.invite(role, session.personId);
  }

  @Post('join')
  @MayCall('everybody')
  @Describe('Joins by an invitation, and is signed in at once', oneOf('Session', 201), 400, 404, 409)
  async join(
    @Body() person: JoinDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionAnswer> {
    return this.signedIn(await this.people.join(person, tokenOf(request)), request, response);
  }

  @Patch(':id')
  @MayCallSignedIn('manager')
  @Describe('Gives somebody another role, or notes that they left', oneOf('Person'), 400, 401, 403, 404, 409)
  change(@Param('id') id: string, @Body() change: ChangePersonDto): Promise<PersonAnswer> {
    return this.people.change(id, change);
  }

  private async signedIn(token: string, request: Request, response: Response): Promise<SessionAnswer> {
    giveToken(request, response, token);
    return this.people.answer(await this.people.sessionOf(token));
  }
}
