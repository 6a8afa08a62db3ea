import { Module } from '@nestjs/common';
import { APP_GUARD, APP_INTERCEPTOR } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataModule } from '../data/data.module.ts';
import { AccessGuard } from './access.guard.ts';
import { DeedsController } from './deeds.controller.ts';
import { PeopleController } from './people.controller.ts';
import { PersonEntity, SessionEntity } from './people.entities.ts';
import { PeopleService } from './people.service.ts';
import { SessionsController } from './sessions.controller.ts';
import { SignedByInterceptor } from './signed-by.interceptor.ts';

@Module({
  imports: [TypeOrmModule.forFeature([PersonEntity, SessionEntity]), DataModule],
  controllers: [DeedsController, PeopleController, SessionsController],
  providers: [
    PeopleService,
    { provide: APP_GUARD, useClass: AccessGuard },
    { provide: APP_INTERCEPTOR, useClass: SignedByInterceptor },
  ],
  exports: [PeopleService],
})
export class PeopleModule {}
