import 'reflect-metadata';
import { AsnConvert } from '@peculiar/asn1-schema';
import { GeneralName, GeneralSubtree, GeneralSubtrees, NameConstraints } from '@peculiar/asn1-x509';
import * as x509 from '@peculiar/x509';
import { randomBytes, webcrypto } from 'node:crypto';

const { subtle } = webcrypto;
x509.cryptoProvider.set(globalThis.crypto);
const EC = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' };
const DAY = 86_400_000;
const AUTHORITY_DAYS = 3650;
/** Less than the longest time that every system takes from an authority of one's own (825 days). */
const SERVER_DAYS = 397;

/** Addresses that nobody has on the internet: RFC 1918, loopback, RFC 3927, RFC 4193, RFC 4291. */
const PRIVATE = [
  '10.0.0.0/8',
  '172.16.0.0/12',
  '192.168.0.0/16',
  '127.0.0.0/8',
  '169.254.0.0/16',
  'fc00::/7',
  'fe80::/10',
  '::1/128',
];
const NAME_CONSTRAINTS = '2.5.29.30';

/** A certificate and its key, both as PEM. */
export interface Pair {
  readonly cert: string;
  readonly key: string;
}

/** What the shop's server is reached by. */
export interface Reached {
  readonly names: readonly string[];
  readonly addresses: readonly string[];
}

/**
 * RFC 5280, 4.2.1.10: what the authority may vouch for, and nothing else: private addresses, and the names it was made
 * for. A key that is stolen then opens no bank.
 */
function constraints(names: readonly string[]): x509.Extension {
  const trees = [
    ...names.map((dNSName) => new GeneralName({ dNSName })),
    ...PRIVATE.map((iPAddress) => new GeneralName({ iPAddress })),
  ].map((base) => new GeneralSubtree({ base }));
  const value = new NameConstraints({ permittedSubtrees: new GeneralSubtrees(trees) });
  return new x509.Extension(NAME_CONSTRAINTS, true, AsnConvert.serialize(value));
}

const pem = async (key: webcrypto.CryptoKey): Promise<string> =>
  x509.PemConverter.encode(await subtle.exportKey('pkcs8', key), 'PRIVATE KEY');
/** Positive, of 127 random bits. */
function serialNumber(): string {
  const bytes = randomBytes(16);
  bytes[0]! &= 0x7f;
  return bytes.toString('hex');
}
const lasting = (days: number): { notBefore: Date; notAfter: Date } => ({
  // A tablet's clock may be behind.
  notBefore: new Date(Date.now() - DAY),
  notAfter: new Date(Date.now() + days * DAY),
});

/** An authority of the shop's own, that a device trusts once it was told to. @param label - what devices list it as */
export async function makeAuthority(names: readonly string[], label: string): Promise<Pair> {
  const keys = await subtle.generateKey(EC, true, ['sign', 'verify']);
  const cert = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serialNumber(),
    name: [{ CN: [label] }],
    ...lasting(AUTHORITY_DAYS),
    keys,
    signingAlgorithm: EC,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      constraints(names),
    ],
  });
  return { cert: cert.toString('pem'), key: await pem(keys.privateKey) };
}

/** A certificate for the server, vouched for by the authority; with the authority's own after it. */
export async function makeServerCertificate(authority: Pair, { names, addresses }: Reached): Promise<Pair> {
  const issuer = new x509.X509Certificate(authority.cert);
  const signingKey = await subtle.importKey(
    'pkcs8',
    x509.PemConverter.decodeFirst(authority.key),
    EC,
    false,
    ['sign'],
  );
  const keys = await subtle.generateKey(EC, true, ['sign', 'verify']);
  const cert = await x509.X509CertificateGenerator.create({
    serialNumber: serialNumber(),
    subject: [{ CN: [names[0] ?? addresses[0] ?? 'Zaffet'] }],
    issuer: issuer.subject,
    ...lasting(SERVER_DAYS),
    publicKey: keys.publicKey,
    signingKey,
    signingAlgorithm: EC,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension([
        ...names.map((value) => ({ type: 'dns' as const, value })),
        ...addresses.map((value) => ({ type: 'ip' as const, value })),
      ]),
      await x509.AuthorityKeyIdentifierExtension.create(issuer.publicKey),
    ],
  });
  return { cert: `${cert.toString('pem')}\n${authority.cert}\n`, key: await pem(keys.privateKey) };
}
