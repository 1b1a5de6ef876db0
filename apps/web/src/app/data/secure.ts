/**
 * What a device cannot do that reads Zaffet by plain http from another machine: browsers keep these for pages that
 * nobody can have changed on their way. Null where nothing is missing.
 */
export function missingHere(secure = isSecureContext): string | null {
  return secure
    ? null
    : 'This device reads Zaffet without a certificate. It does not open here while the workshop’s machine is off, no notices come, the screen is not kept awake, and whoever listens in the network reads along.';
}
