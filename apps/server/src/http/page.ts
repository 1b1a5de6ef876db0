import { fault } from '@zaffet/contract';
import express, { type RequestHandler, Router } from 'express';
import helmet from 'helmet';
import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const NONCE_MARK = '__CSP_NONCE__';
/** A name that changes with the content: such a file is the same for ever. */
const HASHED = /-[A-Z0-9]{8}\.\w+$/;
const FOR_EVER = 'public, max-age=31536000, immutable';
/** What has an ending is a file; everything else is a page of the application. */
const isFile = (path: string): boolean => /\.[a-z0-9]+$/i.test(path);

/** Headers that browsers do not take from an address they do not trust: they would only complain. */
export const FOR_UNTRUSTED = { crossOriginOpenerPolicy: false, originAgentCluster: false } as const;

/**
 * Content policy: everything from here, component styles by a nonce that is new with each page.
 * @param trusted - whether browsers trust the address: by TLS, or as their own machine's
 */
export function contentPolicy(trusted: boolean): RequestHandler[] {
  const nonce: RequestHandler = (_request, response, next) => {
    response.locals['nonce'] = randomBytes(16).toString('base64');
    next();
  };
  const policy = helmet({
    strictTransportSecurity: false,
    ...(trusted ? {} : FOR_UNTRUSTED),
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        styleSrc: [
          "'self'",
          (_request, response) => `'nonce-${String((response as express.Response).locals['nonce'])}'`,
        ],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        baseUri: ["'self'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
  });
  return [nonce, policy];
}

/** Files of the sign-in page, as the build lists them. */
function doorFiles(directory: string): ReadonlySet<string> {
  const list = join(directory, 'door.json');
  return new Set(existsSync(list) ? (JSON.parse(readFileSync(list, 'utf8')) as string[]) : []);
}

/**
 * The built web application: hashed files for ever, others asked after each time, the page itself fresh with its nonce.
 * @param inside - lets only those through who are signed in: others get the files of the sign-in page; null where nobody
 * signs in
 */
export function webPages(directory: string, inside: RequestHandler | null): Router {
  const router = Router();
  const browser = join(directory, 'browser');
  const index = join(browser, 'index.html');
  if (!existsSync(index)) return router;
  const page = readFileSync(index, 'utf8');
  router.get('/index.html', (_request, response) => {
    response.redirect('/');
  });
  if (inside !== null) {
    const forAll = doorFiles(directory);
    router.use((request, response, next) =>
      isFile(request.path) && !forAll.has(request.path) ? inside(request, response, next) : next(),
    );
  }
  router.use(
    express.static(browser, {
      index: false,
      redirect: false,
      setHeaders: (response, path) =>
        void response.setHeader('cache-control', HASHED.test(path) ? FOR_EVER : 'no-cache'),
    }),
  );
  router.get('/{*path}', (request, response) => {
    if (request.path.startsWith('/api/') || isFile(request.path)) {
      response.status(404).json(fault('request.unknown-route'));
      return;
    }
    response.set('cache-control', 'no-store').type('html');
    response.send(page.replaceAll(NONCE_MARK, String(response.locals['nonce'])));
  });
  return router;
}
