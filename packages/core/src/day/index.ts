export { earliestFit, type Span, scheduleQueue, type WorkingTimes } from './schedule.ts';
