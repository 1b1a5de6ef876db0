/** How a device comes in: by the shop's pass phrase, or by the key of an invitation. */
export type SignIn =
  { readonly name: string; readonly phrase: string } | { readonly name: string; readonly key: string };

/** How it stands with the device that asks. */
export interface DoorAnswer {
  /** Whether Zaffet is open to the network, so that devices sign in. */
  readonly network: boolean;
  /** The name the device signed in under; null where it has not, or where nobody needs to. */
  readonly name: string | null;
}

/** A device that is signed in. */
export interface SignedIn {
  readonly id: string;
  readonly name: string;
  readonly since: string;
  /** To the minute. */
  readonly seenAt: string;
  /** Whether it is the one that asks. */
  readonly here: boolean;
}

/** Where an invitation leads, beneath the address. */
export interface InvitationRequest {
  readonly to: string;
}

/** What a device needs to come in, once. */
export interface Invitation {
  /** The address with its key, and the same as a picture to hold a camera at [SVG]. */
  readonly address: string;
  readonly picture: string;
  readonly until: string;
  /** Where the shop's own certificate is fetched; null where there is another, or none. */
  readonly trust: {
    readonly address: string;
    readonly picture: string;
    /** SHA-256, to be compared with what the device shows. */
    readonly fingerprint: string;
  } | null;
}

/** Letters of a pass phrase, a device's name, and where an invitation may lead. */
export const PHRASE_LENGTH = { min: 12, max: 200 };
export const DEVICE_NAME_LENGTH = 60;
/** Not `//`: that would be another site's. */
export const INNER_PATH = /^\/(?!\/)[A-Za-z0-9/_-]{0,200}$/;
