import Joi from 'joi';
import { text } from '../fields';
import { checked } from '../refusals';
import { DEVICE_NAME_LENGTH, INNER_PATH, type InvitationRequest, PHRASE_LENGTH, type SignIn } from './types';

/** What an invitation's key is made of: 32 random bytes as base64url. */
const KEY = /^[A-Za-z0-9_-]{43}$/;

const signIn = Joi.object<SignIn>({
  name: text(DEVICE_NAME_LENGTH),
  phrase: Joi.string().max(PHRASE_LENGTH.max),
  key: Joi.string().pattern(KEY, 'key'),
})
  .xor('phrase', 'key')
  .required();

/** Reads who wants in. @throws ZaffetError `session.invalid` with every refused field */
export function parseSignIn(value: unknown): SignIn {
  return checked(signIn, value, 'session.invalid');
}

const invitation = Joi.object<InvitationRequest>({
  to: Joi.string().pattern(INNER_PATH, 'path').required(),
}).required();

/** Reads where an invitation leads. @throws ZaffetError `session.invalid` with every refused field */
export function parseInvitation(value: unknown): InvitationRequest {
  return checked(invitation, value, 'session.invalid');
}
