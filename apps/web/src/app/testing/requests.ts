import { type HttpTestingController, type TestRequest } from '@angular/common/http/testing';

/** Waits some time [ms]. */
export const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Longest that a busy machine may take to come to something, in looks 5 ms apart. */
const LOOKS = 1000;

/** Waits until something is so. */
export async function until(met: () => boolean | Promise<boolean>): Promise<void> {
  for (let look = 0; look < LOOKS && !(await met()); look++) await rest(5);
}

/** The next request of a kind, once it is sent. */
export async function nextRequest(
  http: HttpTestingController,
  method: string,
  url: string,
): Promise<TestRequest> {
  let found: TestRequest[] = [];
  await until(
    () => (found = http.match((request) => request.method === method && request.url === url)).length > 0,
  );
  const [request] = found;
  if (request === undefined || found.length > 1) throw new Error(`${found.length} requests ${method} ${url}`);
  return request;
}
