import { fault, ZaffetError } from '@zaffet/contract';
import { parse } from 'cookie';
import { type CookieOptions, type Request, type RequestHandler, type Response } from 'express';
import { type Database } from '../db/client';
import { type Newsroom } from '../news';
import { type Device, deviceOf } from './devices';
import { type Secret } from './phrase';

/** How Zaffet is open to the shop's network. */
export interface Network {
  readonly secret: Secret;
  /** Whether it is reached by https. */
  readonly secure: boolean;
  /** What devices open: `https://192.168.4.7:4310`. */
  readonly address: string;
  /** Of the shop's own authority; null where there is none. */
  readonly trust: { readonly address: string; readonly fingerprint: string } | null;
}

/** A browser takes the prefix only with `Secure`, and `Secure` only by https. */
const cookieName = (secure: boolean): string => (secure ? '__Host-zaffet' : 'zaffet');
const flags = (secure: boolean): CookieOptions => ({ httpOnly: true, sameSite: 'strict', secure, path: '/' });

export function giveToken(response: Response, secure: boolean, token: string, lasts: number): void {
  response.cookie(cookieName(secure), token, { ...flags(secure), maxAge: lasts });
}
export function dropToken(response: Response, secure: boolean): void {
  response.clearCookie(cookieName(secure), flags(secure));
}
export const tokenOf = (request: Request, secure: boolean): string | null =>
  parse(request.headers.cookie ?? '')[cookieName(secure)] ?? null;

/** The device a request came in by; only after `signedInOnly`. */
export const deviceHere = (response: Response): Device => response.locals['device'] as Device;

/** Who asks, where nobody may take all for themselves; null where nobody signs in. */
export const whoAsks = (response: Response): string | null =>
  (response.locals['device'] as Device | undefined)?.id ?? null;

/**
 * Lets only devices in that are signed in. What goes on for long, such as a stream, ends as soon as its device is shut
 * out, by whichever Zaffet.
 */
export function signedInOnly(
  db: Database,
  { secure }: Network,
  news: Newsroom,
): (...asked: Parameters<RequestHandler>) => Promise<void> {
  const open = new Map<string, Set<Response>>();
  news.hear('out', ({ id }) => {
    for (const response of open.get(id) ?? []) response.destroy();
  });
  // Of somebody who was shut out meanwhile nothing was heard: whoever still may calls again.
  news.hear('missed', () => {
    for (const responses of open.values()) for (const response of responses) response.destroy();
  });
  return async (request, response, next) => {
    const token = tokenOf(request, secure);
    const device = token === null ? null : await deviceOf(db, token);
    if (device === null) throw new ZaffetError(fault('session.needed'));
    response.locals['device'] = device;
    const others = open.get(device.id) ?? new Set();
    open.set(device.id, others.add(response));
    response.on('close', () => {
      others.delete(response);
      if (others.size === 0) open.delete(device.id);
    });
    next();
  };
}

/** Where an invitation leads: the page is asked for in the query, the key stands after `#`, which no server is sent. */
export const invitationAddress = (address: string, to: string, key: string): string =>
  `${address}/plans?${new URLSearchParams({ to }).toString()}#${key}`;
