import express, { type Express } from 'express';
import helmet from 'helmet';
import { FOR_UNTRUSTED } from '../http/page';
import { knownHostsOnly } from './hosts';

const CERTIFICATE = '/zaffet-authority.crt';
const STYLE = '/trust.css';

export interface TrustPageOptions {
  readonly hosts: ReadonlySet<string>;
  /** The authority's certificate [PEM]. */
  readonly certificate: string;
  /** SHA-256. */
  readonly fingerprint: string;
  /** Where Zaffet itself is. */
  readonly address: string;
}

/** Eight pairs a line, as they are compared. */
const inLines = (fingerprint: string): string =>
  (fingerprint.match(/(?:..:?){8}/g) ?? []).map((line) => `<span>${line.replace(/:$/, '')}</span>`).join('');

const page = ({ fingerprint, address }: TrustPageOptions): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Let this device trust the workshop · Zaffet</title>
<link rel="stylesheet" href="${STYLE}">
</head>
<body>
<main>
<h1>Let this device trust the workshop</h1>
<p>Zaffet talks in secret in this workshop, under a certificate of its own. A device has to be told once that it may trust
it. It can vouch for this workshop's Zaffet, and for no other site.</p>
<ol>
<li><a class="fetch" href="${CERTIFICATE}">Fetch the certificate</a></li>
<li>Compare its SHA-256 fingerprint with the one on the workshop's own screen, under Tablets:
<code>${inLines(fingerprint)}</code></li>
<li>Install it in the device's settings, where certificates or profiles are kept, as one of an authority (a "CA").
Some devices ask a second time, in another place of the settings, whether it is to be trusted in full: say yes.</li>
<li><a class="open" href="${address}/">Open Zaffet</a> No warning must come.</li>
</ol>
<p class="aside">Where a warning comes, the certificate is not installed yet. Passing the warning over by hand is not
enough: Zaffet would not open then while the workshop's machine is off.</p>
</main>
</body>
</html>
`;

const SHEET = `body { margin: 0; background: #efe9dd; color: #2b2621; font: 18px/1.5 system-ui, sans-serif; }
main { max-width: 36em; margin: 0 auto; padding: 1.2em; }
h1 { font-size: 1.5em; line-height: 1.2; }
li { margin: 0 0 1em; }
code { display: grid; margin: .5em 0; padding: .6em .8em; background: #fbf8f1; border: 1px solid #b8ab95; border-radius: 4px; font-size: .9em; overflow-wrap: anywhere; }
a.fetch, a.open { margin-right: .5em; display: inline-block; padding: .6em 1.1em; border-radius: 4px; background: #2f5560; color: #fff; text-decoration: none; }
.aside { font-size: .9em; color: #55493d; }
`;

/** What is answered to whoever comes without TLS: how to trust the shop's authority, its certificate, and the way on. */
export function trustPage(options: TrustPageOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    knownHostsOnly(options.hosts),
    helmet({
      strictTransportSecurity: false,
      ...FOR_UNTRUSTED,
      contentSecurityPolicy: {
        useDefaults: false,
        directives: { defaultSrc: ["'none'"], styleSrc: ["'self'"], frameAncestors: ["'none'"] },
      },
    }),
  );
  app.get(CERTIFICATE, (_request, response) => {
    response
      .set('content-disposition', 'attachment; filename="zaffet-authority.crt"')
      .type('application/x-x509-ca-cert')
      .send(options.certificate);
  });
  app.get(STYLE, (_request, response) => {
    response.type('css').send(SHEET);
  });
  app.get('/{*path}', (_request, response) => {
    response.set('cache-control', 'no-store').type('html').send(page(options));
  });
  return app;
}
