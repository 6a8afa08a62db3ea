import 'reflect-metadata';

/** What crosses the wire between page and server. Requests are classes that validate, answers are types. */
export * from './answers.ts';
export * from './book.ts';
export * from './colour-keys.ts';
export * from './day.ts';
export * from './deeds.ts';
export * from './desk.ts';
export * from './drop-off.ts';
export * from './figures.ts';
export * from './job-files.ts';
export * from './job-states.ts';
export * from './jobs.ts';
export * from './machines.ts';
export * from './mails.ts';
export * from './materials.ts';
export * from './messages.ts';
export * from './people.ts';
export * from './quotes.ts';
export * from './runs.ts';
export * from './settings.ts';
export * from './sharing.ts';
