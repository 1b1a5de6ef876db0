import { API, type DoorAnswer, fault, type Invitation, type SignedIn, ZaffetError } from '@zaffet/contract';
import { parseInvitation, parseSignIn } from '@zaffet/contract/door';
import express, { type ErrorRequestHandler, type RequestHandler, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import QRCode from 'qrcode';
import { type Database } from '../db/client';
import { type Newsroom } from '../news';
import { deviceOf, invite, listDevices, shutOthersOut, shutOut, signIn, takeInvitation } from './devices';
import {
  deviceHere,
  dropToken,
  giveToken,
  invitationAddress,
  type Network,
  signedInOnly,
  tokenOf,
} from './door';
import { fits } from './phrase';

/** Tries that failed, of one address; a restart forgives them. */
const TRIES = 10;
const TRIES_WITHIN = 15 * 60_000;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Beneath `/api`. */
const HEALTH = API.health.slice('/api'.length);

/** Neither a phrase nor a path is longer. */
const small = express.json({ limit: '4kb', strict: false });
const tooLarge: ErrorRequestHandler = (error: { type?: string }, _request, _response, next) =>
  next(error.type === 'entity.too.large' ? new ZaffetError(fault('session.invalid')) : error);

/** A body of somebody who is not signed in comes within [ms], or not at all. */
const BODY_WITHIN = 10_000;
const hurried: RequestHandler = (request, response, next) => {
  const timer = setTimeout(() => request.complete || request.socket.destroy(), BODY_WITHIN);
  timer.unref();
  response.once('close', () => clearTimeout(timer));
  // What comes beyond is not read.
  response.set('connection', 'close');
  next();
};

const picture = (address: string): Promise<string> =>
  QRCode.toString(address, { type: 'svg', errorCorrectionLevel: 'M', margin: 2 });

/** Where Zaffet answers only to its own machine, nobody signs in, and all that is asked of it says so. */
function closedDoor(): Router {
  const router = Router();
  const nobody: RequestHandler = () => {
    throw new ZaffetError(fault('session.no-network'));
  };
  router.get(API.session, (_request, response) => {
    response.json({ network: false, name: null } satisfies DoorAnswer);
  });
  router.all([API.session, API.sessions, '/api/sessions/:id', API.invitations], nobody);
  return router;
}

/** The door to the shop's network: who signs in, who is in, who is shut out. What comes after it is for those who are in. */
export function doorRoutes(db: Database, network: Network | null, news: Newsroom): Router {
  if (network === null) return closedDoor();
  const router = Router();
  const { secure, secret } = network;
  const slow = rateLimit({
    windowMs: TRIES_WITHIN,
    limit: TRIES,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, _response, next) => next(new ZaffetError(fault('session.too-many-tries'))),
  });
  router.get(API.session, async (request, response) => {
    const token = tokenOf(request, secure);
    const device = token === null ? null : await deviceOf(db, token);
    response.json({ network: true, name: device?.name ?? null } satisfies DoorAnswer);
  });
  router.post(API.session, hurried, slow, small, async (request, response) => {
    const told = parseSignIn(request.body);
    if ('key' in told) await takeInvitation(db, told.key);
    else if (!(await fits(told.phrase, secret))) throw new ZaffetError(fault('session.wrong-phrase'));
    const { device, token, lasts } = await signIn(db, told.name);
    giveToken(response, secure, token, lasts);
    response.json({ network: true, name: device.name } satisfies DoorAnswer);
  });
  const onlyIn = signedInOnly(db, network, news);
  router.use('/api', (request, response, next) =>
    request.path === HEALTH ? next() : onlyIn(request, response, next),
  );
  router.delete(API.session, async (_request, response) => {
    const { id } = deviceHere(response);
    await shutOut(db, id);
    dropToken(response, secure);
    response.status(204).end();
    news.tell('out', { id });
  });
  router.get(API.sessions, async (_request, response) => {
    const list: SignedIn[] = await listDevices(db, deviceHere(response).id);
    response.json(list);
  });
  router.delete(API.sessions, async (_request, response) => {
    for (const id of await shutOthersOut(db, deviceHere(response).id)) news.tell('out', { id });
    response.status(204).end();
  });
  router.delete('/api/sessions/:id', async (request, response) => {
    const { id } = request.params;
    if (!UUID.test(id)) throw new ZaffetError(fault('session.not-found'));
    await shutOut(db, id);
    response.status(204).end();
    news.tell('out', { id });
  });
  router.post(API.invitations, small, async (request, response) => {
    const { to } = parseInvitation(request.body);
    const { key, until } = await invite(db);
    const address = invitationAddress(network.address, to, key);
    const { trust } = network;
    const invitation: Invitation = {
      address,
      picture: await picture(address),
      until: until.toISOString(),
      trust: trust && { ...trust, picture: await picture(trust.address) },
    };
    response.status(201).json(invitation);
  });
  router.use(tooLarge);
  return router;
}
