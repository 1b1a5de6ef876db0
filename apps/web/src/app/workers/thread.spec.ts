import { Latest, Thread, Turns } from './thread';

describe('a thread', () => {
  const dying = (): Worker =>
    new Worker(
      URL.createObjectURL(new Blob(['throw new Error("cannot begin")'], { type: 'text/javascript' })),
    );

  it('says when its worker dies instead of waiting for ever, and begins another when asked again', async () => {
    let begun = 0;
    const thread = new Thread<{ say(): number }>(() => {
      begun++;
      return dying();
    });
    for (const time of [1, 2]) {
      await expectAsync(thread.ask((remote) => remote.say())).toBeRejectedWithError('the worker ended');
      expect(begun).toBe(time);
    }
  });

  it('ends all questions with its worker, but not for what one of them throws', async () => {
    const thread = new Thread<{ say(): number }>(dying);
    const both = [1, 2].map(() => thread.ask((remote) => remote.say()));
    for (const question of both) await expectAsync(question).toBeRejectedWithError('the worker ended');

    let begun = 0;
    const silent = new Thread<object>(() => {
      begun++;
      return new Worker(URL.createObjectURL(new Blob([''], { type: 'text/javascript' })));
    });
    const slow = silent.ask(() => new Promise((resolve) => setTimeout(() => resolve(7), 50)));
    await expectAsync(silent.ask(() => Promise.reject(new Error('no plan')))).toBeRejectedWithError(
      'no plan',
    );
    expect(await slow).toBe(7);
    expect(begun).toBe(1);
    silent.stop();
  });
});

describe('a thread that is stopped', () => {
  const silent = (): Worker => new Worker(URL.createObjectURL(new Blob([''], { type: 'text/javascript' })));

  it('tells who waits when its work is called off, and begins another worker when asked again', async () => {
    let begun = 0;
    const thread = new Thread<object>(() => {
      begun++;
      return silent();
    });
    const waiting = thread.ask(() => new Promise(() => undefined));
    thread.cancel();
    await expectAsync(waiting).toBeRejectedWithError('the worker was stopped');
    expect(await thread.ask(() => Promise.resolve(7))).toBe(7);
    expect(begun).toBe(2);
    thread.stop();
  });

  it('tells nobody when it goes with its page: nobody waits there any more', async () => {
    const thread = new Thread<object>(silent);
    const waiting = thread.ask(() => new Promise(() => undefined));
    thread.stop();
    await expectAsync(
      Promise.race([waiting, new Promise((resolve) => setTimeout(resolve, 30))]),
    ).toBeResolved();
  });
});

describe('requests that overtake each other', () => {
  it('ask one at a time, and of those that come meanwhile only the last', async () => {
    const asked: number[] = [];
    const waiting: (() => void)[] = [];
    const latest = new Latest<number, number>((question) => {
      asked.push(question);
      return new Promise((resolve) => waiting.push(() => resolve(10 * question)));
    });
    const got: number[] = [];
    const put = (n: number): void => latest.put(n, (answer) => got.push(answer), fail);
    put(1);
    put(2);
    put(3);
    expect(asked).toEqual([1]);
    waiting.shift()!();
    await new Promise((resolve) => setTimeout(resolve));
    expect(asked).toEqual([1, 3]);
    waiting.shift()!();
    await new Promise((resolve) => setTimeout(resolve));
    expect(got).toEqual([10, 30]);
    put(4);
    expect(asked).toEqual([1, 3, 4]);
  });

  it('say when one fails, and go on with the next', async () => {
    let failed = 0;
    const got: number[] = [];
    const latest = new Latest<number, number>((n) =>
      n < 0 ? Promise.reject(new Error()) : Promise.resolve(n),
    );
    latest.put(
      -1,
      (answer) => got.push(answer),
      () => failed++,
    );
    latest.put(
      7,
      (answer) => got.push(answer),
      () => failed++,
    );
    await new Promise((resolve) => setTimeout(resolve));
    expect([failed, got]).toEqual([1, [7]]);
  });

  it('lose their turn when a newer one takes it', () => {
    const turns = new Turns();
    const first = turns.take();
    expect(first()).toBeTrue();
    const second = turns.take();
    expect([first(), second()]).toEqual([false, true]);
  });
});
