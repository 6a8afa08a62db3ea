import { type IntervalHistogram, monitorEventLoopDelay } from 'node:perf_hooks';
import type { HealthAnswer } from '@lambent/contracts';
import { Controller, Get, type OnApplicationShutdown } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Describe, oneOf } from '../api/describe.ts';
import { WriteQueue } from '../data/write-queue.ts';
import { MayCall } from '../people/may-call.ts';

const nsPerMs = 1e6;
const resolutionMs = 10;

/** Whether the server is well: for whoever watches over it, and for the siege. */
@ApiTags('health')
@Controller('api/health')
export class HealthController implements OnApplicationShutdown {
  private readonly delay: IntervalHistogram = monitorEventLoopDelay({ resolution: resolutionMs });

  constructor(private readonly writes: WriteQueue) {
    this.delay.enable();
  }

  @Get()
  @MayCall('everybody')
  @Describe('How the server has been since this was last asked', oneOf('Health'))
  get(): HealthAnswer {
    const longest = this.delay.max / nsPerMs - resolutionMs;
    const answer = { storage: this.writes.state, longestStallMs: Math.max(0, Math.round(longest)) };
    this.delay.reset();
    return answer;
  }

  onApplicationShutdown(): void {
    this.delay.disable();
  }
}
