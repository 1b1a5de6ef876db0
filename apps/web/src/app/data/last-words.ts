/** Most that a browser still sends of a window that closes [bytes]. */
const MOST = 60_000;

/** Sends something as the window closes; what is too large or does not come through was kept before. */
export function lastWords(method: string, path: string, body: unknown): void {
  const text = body === undefined ? null : JSON.stringify(body);
  if ((text?.length ?? 0) > MOST) return;
  const headers = { 'content-type': 'application/json' };
  void fetch(path, { method, keepalive: true, headers, body: text }).catch(() => undefined);
}
