import { type RunEvent } from '@zaffet/contract';
import { deleteDB } from 'idb';
import { Journal, leftJournals } from './journal';
import { newId } from '../data/fresh';
import { RunStore, type Telling } from './run-store';

const note = (text: string): Telling => ({ kind: 'note', partId: null, text });
const texts = (events: readonly RunEvent[]): string[] =>
  events.map((event) => (event.kind === 'note' ? event.text : event.kind)).sort();
/** What is left, and taken away. */
async function left(): Promise<unknown[]> {
  const all = await leftJournals();
  for (const { drop } of all) await drop();
  return all.flatMap(({ entries }) => entries);
}
/** The lock of a tab that has gone is free a moment later. */
const gone = (): Promise<unknown> => new Promise((go) => setTimeout(go, 50));

describe('the journal of a tab', () => {
  beforeEach(left);

  it('is read by others once the tab is gone, and not before', async () => {
    const journal = (await Journal.open(newId()))!;
    expect(await journal.append([{ a: 1 }, { text: 'ü, "quoted"\nand broken' }])).toBeTrue();
    expect(await journal.append([{ b: 2 }])).toBeTrue();
    expect(await left()).toEqual([]);
    journal.close();
    await gone();
    expect(await left()).toEqual([{ a: 1 }, { text: 'ü, "quoted"\nand broken' }, { b: 2 }]);
    expect(await left()).toEqual([]);
  });

  it('forgets what is safe elsewhere, and goes on', async () => {
    const journal = (await Journal.open(newId()))!;
    await journal.append([{ a: 1 }]);
    await journal.clear();
    await journal.append([{ b: 2 }]);
    journal.close();
    await gone();
    expect(await left()).toEqual([{ b: 2 }]);
  });

  it('is read as far as its lines are whole', async () => {
    const name = newId();
    const journal = (await Journal.open(name))!;
    await journal.append([{ a: 1 }, { b: 2 }]);
    journal.close();
    await gone();
    const root = await navigator.storage.getDirectory();
    const file = await (await root.getDirectoryHandle('bench')).getFileHandle(name);
    const { size } = await file.getFile();
    const writable = await file.createWritable({ keepExistingData: true });
    await writable.truncate(size - 3);
    await writable.close();
    expect(await left()).toEqual([{ a: 1 }]);
  });

  it('brings back what the database has lost, waiting as before; what it has is left alone', async () => {
    const run = newId();
    const first = new RunStore();
    await first.open();
    const told = await first.add(run, [note('one'), note('two')], Date.now(), 0);
    expect(told.kept).toBeTrue();
    first.close();
    await gone();
    await deleteDB('zaffet-runs');

    const second = new RunStore();
    await second.open();
    expect(texts(await second.eventsOf(run))).toEqual(['one', 'two']);
    expect((await second.waiting()).filter(({ runId }) => runId === run).length).toBe(2);
    // The server has them: whoever comes next finds nothing that waits.
    await second.taken(run, told.events);
    second.close();
    await gone();

    const third = new RunStore();
    await third.open();
    expect(texts(await third.eventsOf(run))).toEqual(['one', 'two']);
    expect((await third.waiting()).filter(({ runId }) => runId === run)).toEqual([]);
    await third.settled();
    third.close();
    await gone();
    expect(await left()).toEqual([]);
  });

  it('brings back the place in time that something got, not what was guessed before', async () => {
    const run = newId();
    const first = new RunStore();
    await first.open();
    await first.add(run, [note('early')], Date.now(), null);
    await first.place(-420_000);
    first.close();
    await gone();
    await deleteDB('zaffet-runs');

    const second = new RunStore();
    await second.open();
    const [early] = (await second.waiting()).filter(({ runId }) => runId === run);
    expect([early!.event.offsetMs, early!.unplaced]).toEqual([-420_000, undefined]);
    expect((await second.eventsOf(run)).map(({ offsetMs }) => offsetMs)).toEqual([-420_000]);
    second.close();
  });

  it('goes from tab to tab while it waits, though the database has it meanwhile', async () => {
    const run = newId();
    for (const text of ['one', 'two']) {
      const store = new RunStore();
      await store.open();
      await store.add(run, [note(text)], Date.now(), 0);
      store.close();
      await gone();
    }
    await deleteDB('zaffet-runs');
    const last = new RunStore();
    await last.open();
    expect(texts(await last.eventsOf(run))).toEqual(['one', 'two']);
    last.close();
  });

  it('says that a thing is not kept where the file refuses it', async () => {
    const store = new RunStore();
    await store.open();
    const run = newId();
    const refuse = spyOn(Journal.prototype, 'append').and.resolveTo(false);
    expect((await store.add(run, [note('full')], Date.now(), 0)).kept).toBeFalse();
    refuse.and.callThrough();
    expect((await store.add(run, [note('room again')], Date.now(), 0)).kept).toBeTrue();
    expect(texts(await store.eventsOf(run))).toEqual(['full', 'room again']);
    store.close();
  });
});
