import { openDB } from 'idb';
import { Outbox, type OutboxOptions, type Sending } from './outbox';
import { rest, until } from '../testing/requests';
import { Unsaved } from './unsaved';

const PAUSES = { send: 20, keep: 5, retry: 40 };

/** A save of a text, counted on from the revision it grew from. */
interface Save {
  readonly text: string;
  readonly from: number;
}

/** A server that answers when it is told to. */
class Server {
  readonly asked: {
    key: string;
    body: Save;
    tried: readonly Save[];
    answer(revision: number): void;
    fail(error: unknown): void;
  }[] = [];
  readonly last: [string, Save][] = [];

  readonly options: OutboxOptions<Save, number> = {
    box: 'test',
    former: 'old-draft-',
    send: (key, body, tried) =>
      new Promise((answer, fail) => this.asked.push({ key, body, tried, answer, fail })),
    sendLast: (key, body) => void this.last.push([key, body]),
    isFinal: (error) => error === 'never',
    merge: (_waiting, newer) => newer,
    follow: (waiting, sent, revision) =>
      waiting.from === sent.from ? { ...waiting, from: revision } : waiting,
    pack: (body) => body,
    unpack: (stored) => stored as Save,
  };
}

describe('the outbox', () => {
  let server: Server;
  let outbox: Outbox<Save, number>;
  let heard: Sending<Save, number>[];
  const kinds = (): string => heard.map(({ kind, key }) => `${kind} ${key}`).join(', ');
  const make = async (unsaved = new Unsaved()): Promise<void> => {
    outbox?.stop();
    server = new Server();
    heard = [];
    outbox = new Outbox(unsaved, server.options, PAUSES);
    outbox.events$.subscribe((event) => heard.push(event));
    await outbox.ready;
  };
  const kept = (): string[] => Object.keys(localStorage).filter((name) => name.includes(' test '));

  beforeEach(async () => {
    localStorage.clear();
    await make();
  });
  afterEach(() => {
    outbox.stop();
    localStorage.clear();
  });

  it('sends once the hand rests, the newest of a key, each key in its turn', async () => {
    outbox.put('a', { text: '1', from: 1 });
    outbox.put('a', { text: '2', from: 1 });
    outbox.put('b', { text: 'x', from: 7 });
    expect(server.asked.length).toBe(0);
    await until(() => server.asked.length === 1);
    expect(server.asked.map(({ key, body }) => key + body.text)).toEqual(['a2']);
    server.asked[0]!.answer(2);
    await until(() => server.asked.length === 2);
    expect(server.asked.map(({ key, body }) => key + body.text)).toEqual(['a2', 'bx']);
    server.asked[1]!.answer(8);
    await until(() => heard.length === 4);
    expect(kinds()).toBe('started a, sent a, started b, sent b');
    expect(kept()).toEqual([]);
  });

  it('goes on from the answer with what was put while a save was on its way', async () => {
    outbox.put('a', { text: '1', from: 1 });
    await until(() => server.asked.length === 1);
    outbox.put('a', { text: '2', from: 1 });
    server.asked[0]!.answer(2);
    await until(() => server.asked.length === 2);
    expect(server.asked[1]!.body).toEqual({ text: '2', from: 2 });
    expect(server.asked[1]!.tried).toEqual([]);
  });

  it('tries again what failed, tells what it tried, and keeps it in the browser meanwhile', async () => {
    outbox.put('a', { text: '1', from: 1 });
    await until(() => server.asked.length === 1);
    server.asked[0]!.fail('away');
    await until(() => heard.at(-1)?.kind === 'failed');
    expect(heard.at(-1)).toEqual({ kind: 'failed', key: 'a', error: 'away', kept: true });
    expect(kept().length).toBe(1);
    await until(() => server.asked.length === 2);
    expect(server.asked[1]!.body).toEqual({ text: '1', from: 1 });
    expect(server.asked[1]!.tried).toEqual([{ text: '1', from: 1 }]);
    server.asked[1]!.answer(2);
    await until(() => heard.at(-1)?.kind === 'sent');
    expect(kept()).toEqual([]);
  });

  it('does not send again what will never be taken, until it is changed', async () => {
    outbox.put('a', { text: 'bad', from: 1 });
    await until(() => server.asked.length === 1);
    server.asked[0]!.fail('never');
    await rest(100);
    expect(server.asked.length).toBe(1);
    expect(heard.at(-1)!.kind).toBe('refused');
    expect(outbox.waiting('a')!.text).toBe('bad');
    outbox.put('a', { text: 'good', from: 1 });
    await until(() => server.asked.length === 2);
    expect(server.asked[1]!.body.text).toBe('good');
  });

  it('keeps what is held without sending it', async () => {
    outbox.hold('a', { text: '1', from: 1 });
    await until(() => kept().length === 1);
    outbox.flush();
    await rest(30);
    expect(server.asked.length).toBe(0);
    expect(kept().length).toBe(1);
    outbox.drop('a');
    expect(kept()).toEqual([]);
  });

  it('keeps and sends what waits as the window closes', () => {
    outbox.put('a', { text: '1', from: 1 });
    outbox.hold('b', { text: '2', from: 1 });
    expect(kept()).toEqual([]);
    dispatchEvent(new Event('pagehide'));
    expect(kept().length).toBe(2);
    expect(server.last).toEqual([['a', { text: '1', from: 1 }]]);
  });

  it('says so where the browser keeps nothing', async () => {
    spyOn(Storage.prototype, 'setItem').and.throwError('full');
    spyOn(IDBObjectStore.prototype, 'put').and.throwError('full');
    outbox.put('a', { text: '1', from: 1 });
    await until(() => server.asked.length === 1);
    server.asked[0]!.fail('away');
    await until(() => heard.at(-1)?.kind === 'failed');
    expect(heard.at(-1)).toEqual(jasmine.objectContaining({ kind: 'failed', kept: false }));
  });

  it('takes over what a closed window left, not what an open one has', async () => {
    const open = new Unsaved();
    await open.adopt('test');
    open.keep('test', 'theirs', { text: 'open', from: 1 });
    localStorage.setItem('zaffet-unsaved gone test mine', JSON.stringify({ text: 'left', from: 3 }));
    localStorage.setItem('old-draft-older', JSON.stringify({ text: 'older', from: 4 }));
    await make();
    expect(outbox.waiting('theirs')).toBeNull();
    expect(outbox.waiting('mine')).toEqual({ text: 'left', from: 3 });
    expect(outbox.waiting('older')).toEqual({ text: 'older', from: 4 });
    await until(() => server.asked.length === 1);
    expect(server.asked.map(({ key }) => key)).toEqual(['mine']);
    expect(localStorage.getItem('old-draft-older')).toBeNull();
  });

  it('goes by the disk where the storage of a browser that was killed is behind, and by what is newer', async () => {
    const db = await openDB('zaffet-unsaved', 1);
    const name = (key: string): string => `zaffet-unsaved killed test ${key}`;
    const put = (key: string, at: number, text: string | null): Promise<unknown> =>
      db.put('kept', { at, text: text === null ? null : JSON.stringify({ text, from: 1 }) }, name(key));
    const storage = (key: string, at: number, text: string): void =>
      localStorage.setItem(name(key), `${at} ${JSON.stringify({ text, from: 1 })}`);
    // Never reached the storage; reached it late; was sent, which the storage does not know; was written as it closed.
    await put('disk', 5, 'disk');
    await put('late', 6, 'newer');
    storage('late', 5, 'older');
    await put('sent', 6, null);
    storage('sent', 5, 'sent long ago');
    await put('closing', 5, 'before');
    storage('closing', 6, 'as it closed');
    await make();
    expect(outbox.waiting('disk')?.text).toBe('disk');
    expect(outbox.waiting('late')?.text).toBe('newer');
    expect(outbox.waiting('sent')).toBeNull();
    expect(outbox.waiting('closing')?.text).toBe('as it closed');
    for (const key of ['disk', 'late', 'sent', 'closing']) {
      expect(await db.get('kept', name(key)))
        .withContext(key)
        .toBeUndefined();
      expect(localStorage.getItem(name(key)))
        .withContext(key)
        .toBeNull();
    }
    db.close();
  });

  it('is on the disk once it says so, and known for dropped when it is', async () => {
    const unsaved = new Unsaved();
    expect(await unsaved.keep('test', 'own', { text: 'mine', from: 1 })).toBeTrue();
    const db = await openDB('zaffet-unsaved', 1);
    const own = async (): Promise<string | null | undefined> => {
      const names = (await db.getAllKeys('kept')).map(String).filter((name) => name.endsWith(' test own'));
      return ((await db.get('kept', names.at(-1)!)) as { text: string | null } | undefined)?.text;
    };
    expect(await own()).toBe('{"text":"mine","from":1}');
    unsaved.drop('test', 'own');
    await until(async () => (await own()) === null);
    db.close();
  });

  it('leaves the second of two closed windows for another time', async () => {
    localStorage.setItem('zaffet-unsaved one test mine', JSON.stringify({ text: 'one', from: 1 }));
    localStorage.setItem('zaffet-unsaved two test mine', JSON.stringify({ text: 'two', from: 1 }));
    await make();
    expect(kept().length).toBe(2);
    const first = outbox.waiting('mine')!.text;
    server.asked.length = 0;
    outbox.drop('mine');
    await make();
    expect([first, outbox.waiting('mine')!.text].sort()).toEqual(['one', 'two']);
  });
});
