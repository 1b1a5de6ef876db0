import { createServer } from 'node:http';
import { specShop } from './testing/specShop';
import { sendWorst } from './testing/worst';

/** Twice what `npm run fuzz` asks for: what is guarded against took seconds [ms of CPU time]. */
const TURN_MOST = 500;

describe('the worst of each kind of file', () => {
  const shop = specShop();

  it('keeps nobody waiting, and is answered as it should be', async () => {
    const server = createServer(shop.build()).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    const { turns, wrong } = await sendWorst(server, shop.db);
    expect(wrong).toEqual([]);
    expect(Object.keys(turns).length).toBeGreaterThan(15);
    expect(Object.entries(turns).filter(([, turn]) => turn > TURN_MOST)).toEqual([]);
    server.close();
    server.closeAllConnections();
  }, 300_000);
});
