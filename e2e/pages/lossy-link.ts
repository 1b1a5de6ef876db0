import { once } from 'node:events';
import { connect, createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { Transform } from 'node:stream';

/** First time after which what is lost is sent again, doubling [ms] (RFC 6298 allows no less than a second; systems take this). */
const RETRY = 200;
/** Lost so often in a row, a connection is given up. */
const GIVEN_UP = 6;

/** What TCP makes of packets that are lost: they come late, or the connection breaks. */
function lossy(loss: number, random: () => number, broken: () => void): Transform {
  return new Transform({
    transform: (piece: Buffer, _encoding, next) => {
      let [wait, lost] = [0, 0];
      while (random() < loss) wait += RETRY * 2 ** lost++;
      if (lost >= GIVEN_UP) broken();
      else setTimeout(next, wait, null, piece);
    },
  });
}

/** A way to a server on which packets are lost, such as a workshop's air with walls in it. */
export class LossyLink {
  private readonly open = new Set<Socket>();
  private readonly server: Server;
  at = '';

  /** @param loss - share of pieces that are lost @param random - from 0 to 1 */
  constructor(
    private readonly target: string,
    loss: number,
    random: () => number,
  ) {
    this.server = createServer((near) => {
      const { hostname, port } = new URL(this.target);
      const far = connect(Number(port), hostname);
      const end = (): void => {
        near.destroy();
        far.destroy();
      };
      for (const socket of [near, far]) {
        this.open.add(socket);
        socket.on('error', end).on('close', () => {
          this.open.delete(socket);
          end();
        });
      }
      near.pipe(lossy(loss, random, end)).pipe(far);
      far.pipe(lossy(loss, random, end)).pipe(near);
    });
  }

  async begin(): Promise<void> {
    this.server.listen(0, '127.0.0.1');
    await once(this.server, 'listening');
    this.at = `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  end(): void {
    for (const socket of this.open) socket.destroy();
    this.server.close();
  }
}
