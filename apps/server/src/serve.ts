import 'reflect-metadata';
import { existsSync, readFileSync } from 'node:fs';
import type { Server as HttpServer, IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { bytesOfMb, mostSendingMb } from '@lambent/contracts';
import { jobMediaType } from '@lambent/core/document';
import { largestFile } from '@lambent/core/formats';
import { ConsoleLogger, ValidationPipe } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { type OpenAPIObject, SwaggerModule } from '@nestjs/swagger';
import express, { type NextFunction, type Request, type Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import expressStaticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { AppModule } from './app.module.ts';
import { deepestJson, depthOfJson } from './common/body-depth.ts';
import { rememberCaller } from './common/caller.ts';
import { doorOf, isLoopback } from './common/door.ts';
import { ErrorFilter, refuseBody } from './common/errors.ts';
import { refuseLarge } from './common/large-body.ts';
import { turnstile } from './common/turnstile.ts';
import { ConfigRefused, config, largestBody, namedHost } from './config.ts';
import { DataFolderRefused } from './data/data-folder.ts';
import { migrate } from './data/database.ts';
import { storageTrouble } from './data/storage-trouble.ts';
import { DemoService } from './demo/demo.service.ts';
import { PeopleService } from './people/people.service.ts';
import { ShopService } from './shop/shop.service.ts';

/**
 * Starts the server on a data folder that is ours.
 * @throws DataFolderRefused when its database cannot be brought up to date
 */
export async function serve(): Promise<void> {
  await bringUpToDate(config.dataFolder);
  const app = await NestFactory.create<NestExpressApplication>(AppModule, {
    bodyParser: false,
    // An open page's event stream would else keep the server from ending.
    forceCloseConnections: true,
    logger: new ConsoleLogger({ logLevels: ['warn', 'error', 'fatal'] }),
  });
  app.use(turnstile());
  app.use(doorOf(config));
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          // One kind of picture is unpacked by WebAssembly.
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          // Panels and popovers are placed by style attributes.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(limitedWork());
  // What the shop takes may be less: that is looked at where it is known.
  const takeFile = express.raw({ type: isFile, limit: bytesOfMb(mostSendingMb) });
  app.use('/api/drop-off', limitedSendings(), refuseLarge(absurdSending), takeFile);
  for (const path of [
    '/api/jobs/:id/originals',
    '/api/jobs/:id/drawings',
    '/api/pictures',
    '/api/fonts',
    '/api/job-files',
    '/api/book/take-in',
  ]) {
    app.use(path, express.raw({ type: () => true, limit: largestFile }));
  }
  app.use(express.raw({ type: jobMediaType, limit: largestBody }));
  app.use(express.json({ limit: '100kb', verify: refuseDeep }));
  app.use(refuseBody);
  app.use(rememberCaller);
  app.useGlobalPipes(new ValidationPipe({ whitelist: true, transform: true }));
  app.useGlobalFilters(new ErrorFilter());

  SwaggerModule.setup('api/docs', app, describedApi);

  await app.get(DemoService).loadIfEmpty();
  await app.get(ShopService).begin();
  await expectManager(app.get(PeopleService));
  servePage(app);
  await listen(app);
  const server = app.getHttpServer() as HttpServer;
  server.keepAliveTimeout = keptConnectionMs;
  server.headersTimeout = keptConnectionMs + 1000;
  const { port } = server.address() as AddressInfo;
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => void end(app));
  process.stdout.write(`Lambent: listening on http://${config.host}:${port}\n`);
  if (config.token !== null) {
    const link = `http://${namedHost(config.host)}:${port}/?token=${encodeURIComponent(config.token)}`;
    process.stdout.write(`Lambent: a token is needed. Open ${link} once on each device that may enter.\n`);
  }
}

/**
 * Makes the first manager that was asked for.
 * @throws ConfigRefused where others than this machine could reach a shop in which nobody signs in
 */
async function expectManager(people: PeopleService): Promise<void> {
  const { host, manager } = config;
  if (manager && !(await people.hasManager())) await people.addFirstManager(manager, null);
  if (isLoopback(host) || (await people.hasManagerWithPassword())) return;
  throw new ConfigRefused(
    `LAMBENT_HOST is ${host}: others could reach it, and this shop has no manager who signs in. Start it on 127.0.0.1 and make the manager under Shop, or set LAMBENT_MANAGER and LAMBENT_MANAGER_PASSWORD, and start again.`,
  );
}

/** @throws ConfigRefused where it cannot listen on the address that was asked for */
async function listen(app: NestExpressApplication): Promise<void> {
  const { host, port } = config;
  try {
    await app.listen(port, host);
  } catch (error) {
    const why = notListening[(error as NodeJS.ErrnoException).code ?? ''];
    if (!why) throw error;
    throw new ConfigRefused(why(host, port));
  }
}

const notListening: Readonly<Record<string, (host: string, port: number) => string>> = {
  EADDRINUSE: (_, port) =>
    `Port ${port} is taken: another Lambent, or another program, listens there. End it, or set LAMBENT_PORT to another port.`,
  EACCES: (_, port) => `Port ${port} is kept for the system. Set LAMBENT_PORT to one from 1024, and start again.`,
  EADDRNOTAVAIL: (host) => `LAMBENT_HOST is ${host}: this machine has no such address. Set it to one that it has.`,
};

/** What the API says of itself, as it was written down by the build. */
function describedApi(): OpenAPIObject {
  return JSON.parse(readFileSync(new URL('openapi.json', import.meta.url), 'utf8'));
}

/**
 * A connection that rests is closed after so long. Node's 5 s are what pages and scripts leave between two requests: one
 * of them would now and then be sent into the closing of its connection, and fail.
 */
const keptConnectionMs = 65_000;

/** So often a minute one address may ask for what costs much: far more than a person does. */
const costlyPerMinute = 600;
const costly =
  /^\/api\/(jobs\/[^/]+\/(originals|drawings|runs|copies)|pictures\/|fonts|job-files|book\/take-in|session$|people\/)/i;

function limitedWork() {
  return rateLimit({
    windowMs: 60_000,
    limit: costlyPerMinute,
    skip: ({ method, path }) => method === 'GET' || !costly.test(path),
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, response) => {
      const message = 'That was asked too often within a minute. Wait a little, and try again.';
      response.status(429).json({ error: { code: 'too-often', message } });
    },
  });
}

/** A file for a sending, or a new one for what was sent in. */
const leavesFile = /^\/([^/]+\/files)?$/;

/** So many files one address may leave within ten minutes. */
const sendingsPerTenMinutes = 100;

/** What says of itself that it is so large is not waited for; what is only too large is told so once it is here. */
const absurdSending = 10 * bytesOfMb(mostSendingMb);

function limitedSendings() {
  return rateLimit({
    windowMs: 600_000,
    limit: sendingsPerTenMinutes,
    skip: (request) => request.method !== 'POST' || !leavesFile.test(request.path),
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, response) => {
      const message = 'Many drawings were left from here within ten minutes. Wait a little, and try again.';
      response.status(429).json({ error: { code: 'too-often', message } });
    },
  });
}

/** What is not the JSON of a wish is a file. */
function isFile(request: IncomingMessage): boolean {
  return !/^application\/json\b/.test(request.headers['content-type'] ?? '');
}

function refuseDeep(_request: unknown, _response: unknown, body: Buffer): void {
  if (depthOfJson(body) > deepestJson)
    throw Object.assign(new Error('too deep'), { type: 'entity.too.deep', status: 400 });
}

/** What is burnt is held first; then all that is open is closed. */
const endWithinMs = 5000;

/** Ends the server and the process, also where something does not let itself be closed. */
async function end(app: NestExpressApplication): Promise<void> {
  setTimeout(() => process.exit(1), endWithinMs);
  try {
    await app.close();
    process.exit(0);
  } catch (error) {
    process.stderr.write(`Lambent: ${String((error as Error).stack ?? error)}\n`);
    process.exit(1);
  }
}

/** The page's files, and the page itself for every address that is not the API's. */
function servePage(app: NestExpressApplication): void {
  const page = join(config.webFolder, 'index.html');
  if (!existsSync(page)) return;
  // The names of built files change with what is in them.
  const serveStatic = { maxAge: '1y', immutable: true };
  const packed = { enableBrotli: true, orderPreference: ['br'], index: false, serveStatic };
  app.use('/assets', expressStaticGzip(join(config.webFolder, 'assets'), packed));
  // A page of an earlier build asks for files that are gone, and must not get the page in their place.
  app.use('/assets', (_request: Request, response: Response) => void response.status(404).end());
  app.use(express.static(config.webFolder, { index: false, maxAge: '1h' }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || request.path.startsWith('/api')) next();
    else response.set('Cache-Control', 'no-cache').sendFile(page);
  });
}

async function bringUpToDate(folder: string): Promise<void> {
  try {
    await migrate(folder);
  } catch (error) {
    const trouble = storageTrouble(error);
    if (!trouble) throw error;
    throw new DataFolderRefused(
      `The database in ${folder} could not be brought up to date: ${trouble.what}. ${trouble.remedy}`,
    );
  }
}
