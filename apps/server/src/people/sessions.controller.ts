import { BeDto, NewPasswordDto, type SessionAnswer, SignInDto } from '@lambent/contracts';
import { Body, Controller, Delete, Get, Post, Put, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Describe, nothing, oneOf } from '../api/describe.ts';
import { CallersSession } from './access.guard.ts';
import { MayCall, MayCallSignedIn } from './may-call.ts';
import type { SessionEntity } from './people.entities.ts';
import { PeopleService } from './people.service.ts';
import { giveToken, takeToken, tokenOf } from './session-cookie.ts';

@ApiTags('people')
@Controller('api/session')
export class SessionsController {
  constructor(private readonly people: PeopleService) {}

  @Get()
  @MayCall('everybody')
  @Describe('Who is signed in, by the cookie that is sent', oneOf('Session'))
  get(@CallersSession() session: SessionEntity | null): Promise<SessionAnswer> {
    return this.people.answer(session);
  }

  @Post()
  @MayCall('everybody')
  @Describe('Signs in; the answer brings the cookie', oneOf('Session'), 400, 401, 429)
  async signIn(
    @Body() who: SignInDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionAnswer> {
    return this.signedIn(await this.people.signIn(who, tokenOf(request)), request, response);
  }

  @Post('demo')
  @MayCall('everybody')
  @Describe('In the demo, signs in as one of its people, without a password', oneOf('Session', 201), 400, 404)
  async beInDemo(
    @Body() { personId }: BeDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionAnswer> {
    return this.signedIn(await this.people.beInDemo(personId, tokenOf(request)), request, response);
  }

  @Delete()
  @MayCall('everybody')
  @Describe('Signs out', nothing)
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.people.signOut(tokenOf(request));
    takeToken(response);
  }

  @Delete('everywhere')
  @MayCallSignedIn('member')
  @Describe('Signs out here and wherever else one is signed in', nothing, 401)
  async signOutEverywhere(
    @CallersSession() session: SessionEntity,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    await this.people.signOutEverywhere(session);
    takeToken(response);
  }

  @Put('password')
  @MayCallSignedIn('member')
  @Describe('Changes one’s password, and signs out wherever else one is signed in', nothing, 400, 401, 429)
  changePassword(@CallersSession() session: SessionEntity, @Body() words: NewPasswordDto): Promise<void> {
    return this.people.changePassword(session, words);
  }

  private async signedIn(token: string, request: Request, response: Response): Promise<SessionAnswer> {
    giveToken(request, response, token);
    return this.people.answer(await this.people.sessionOf(token));
  }
}
