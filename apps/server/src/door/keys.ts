import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { CannotStart, causeOf } from '../start/cannot';
import { makeAuthority, makeServerCertificate, type Pair, type Reached } from './authority';

const DAY = 86_400_000;
/** Made anew at a start this long before it ends. */
const RENEWED = 30 * DAY;
/** Its keeper's alone. */
const FOLDER_MODE = 0o700;
const FILE_MODE = 0o600;

function readPair(folder: string, name: string): Pair | null {
  const [cert, key] = [join(folder, `${name}.crt`), join(folder, `${name}.key`)];
  return existsSync(cert) && existsSync(key)
    ? { cert: readFileSync(cert, 'utf8'), key: readFileSync(key, 'utf8') }
    : null;
}

function writePair(folder: string, name: string, pair: Pair): Pair {
  // The certificate last: with it there the key is too.
  for (const [ending, text] of [
    ['key', pair.key],
    ['crt', pair.cert],
  ] as const) {
    const file = join(folder, `${name}.${ending}`);
    writeFileSync(`${file}.new`, text, { mode: FILE_MODE });
    renameSync(`${file}.new`, file);
  }
  return pair;
}

/** Whether a certificate of the server still serves: not at its end, of this authority, for all that it is reached by. */
export function serves({ cert }: Pair, authority: Pair, { names, addresses }: Reached): boolean {
  const [own, above] = [new X509Certificate(cert), new X509Certificate(authority.cert)];
  return (
    Date.parse(own.validTo) - Date.now() > RENEWED &&
    own.verify(above.publicKey) &&
    names.every((name) => own.checkHost(name) !== undefined) &&
    addresses.every((address) => own.checkIP(address) !== undefined)
  );
}

/**
 * The shop's own authority and the server's certificate, kept in files beside the data and made where they are missing.
 * The certificate is made anew when the addresses changed or its end is near; the authority stays, so that devices go on
 * trusting it, unless there are names now that it may not vouch for.
 * @throws CannotStart where they cannot be kept, or read
 */
export async function readyKeys(
  folder: string,
  reached: Reached,
  label: string,
): Promise<{ authority: Pair; server: Pair; fingerprint: string }> {
  try {
    return await keysIn(folder, reached, label);
  } catch (error) {
    throw new CannotStart(
      `The keys of the workshop's certificate in ${folder} cannot be used (${causeOf(error)}). Make the folder writable, or remove what is in it to have new ones, which every device must be told to trust again.`,
    );
  }
}

async function keysIn(
  folder: string,
  reached: Reached,
  label: string,
): Promise<{ authority: Pair; server: Pair; fingerprint: string }> {
  mkdirSync(folder, { recursive: true, mode: FOLDER_MODE });
  const madeFor = join(folder, 'made-for');
  const wanted = [...reached.names].sort().join('\n');
  const known =
    existsSync(madeFor) && readFileSync(madeFor, 'utf8') === wanted ? readPair(folder, 'authority') : null;
  const authority = known ?? writePair(folder, 'authority', await makeAuthority(reached.names, label));
  if (known === null) writeFileSync(madeFor, wanted, { mode: FILE_MODE });
  const old = readPair(folder, 'server');
  const server =
    old !== null && serves(old, authority, reached)
      ? old
      : writePair(folder, 'server', await makeServerCertificate(authority, reached));
  return { authority, server, fingerprint: new X509Certificate(authority.cert).fingerprint256 };
}
