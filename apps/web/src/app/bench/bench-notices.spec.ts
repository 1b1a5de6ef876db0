import { provideZonelessChangeDetection, signal } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { type Alarm } from '@zaffet/workshop';
import { BenchModel } from '../runs/bench-model';
import { RunBox } from '../runs/run-box';
import { BenchAlarms, newestOfEach } from './bench-alarms';
import { BenchNotices } from './bench-notices';

describe('notices at the bench', () => {
  const now = new Date(2026, 4, 12, 9, 0).getTime();
  const box = signal({ kept: true, refused: null as string | null, away: false, unsent: 0, offsetMs: 0 });
  const rung = signal<readonly { alarm: Alarm; text: string }[]>([]);
  const moved = signal<unknown>(null);
  const drop = jasmine.createSpy('drop');
  let notices: ComponentFixture<BenchNotices>;

  beforeEach(async () => {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: RunBox, useValue: { state: box } },
        { provide: BenchAlarms, useValue: { shown: rung, drop } },
        {
          provide: BenchModel,
          useValue: { now: () => now, bench: signal({ overtime: null }), failed: signal(false), moved },
        },
      ],
    });
    notices = TestBed.createComponent(BenchNotices);
    rung.set([]);
    box.set({ kept: true, refused: null, away: false, unsent: 0, offsetMs: 0 });
    await notices.whenStable();
  });
  const host = (): HTMLElement => notices.nativeElement as HTMLElement;
  const lines = (): string[] => [...host().querySelectorAll('.text')].map((text) => text.textContent);
  const press = async (label: string): Promise<void> => {
    [...host().querySelectorAll('button')].find(({ textContent }) => textContent.trim() === label)!.click();
    await notices.whenStable();
  };
  const ring = (...texts: string[]): void =>
    rung.set(texts.map((text) => ({ text, alarm: { id: text, partId: `part of ${text}` } as Alarm })));

  it('take one line, whatever there is; the rest is a press away', async () => {
    ring('third', 'second', 'first');
    box.update((state) => ({ ...state, away: true }));
    await notices.whenStable();
    expect(lines()).toEqual(['third']);
    const height = host().getBoundingClientRect().height;
    await press('3 more');
    expect(lines().slice(0, 3)).toEqual(['third', 'second', 'first']);
    expect(lines()[3]).toContain('cannot be reached');
    await press('Show one');
    expect(host().getBoundingClientRect().height).toBe(height);
  });

  it('have what is not safe before all else', async () => {
    ring('a window closes');
    box.update((state) => ({ ...state, kept: false }));
    await notices.whenStable();
    expect(lines()[0]).toContain('Not stored on this device');
  });

  it('have one alarm a task: a newer one takes the place of those before it', () => {
    const alarm = (id: string, key: string): Alarm => ({ id, task: { key } }) as Alarm;
    const all = [alarm('closing', 'lid'), alarm('go', 'leg'), alarm('go', 'lid'), alarm('look', 'lid')];
    expect(newestOfEach(all).map(({ id, task }) => `${id} ${task.key}`)).toEqual(['closing lid', 'go leg']);
  });

  it('take the part of an alarm in hand, and are gone then', async () => {
    const wanted: string[] = [];
    notices.componentInstance.wanted.subscribe((partId) => wanted.push(partId));
    ring('go', 'look');
    await notices.whenStable();
    await press('Show it');
    expect(wanted).toEqual(['part of go']);
    expect(drop).toHaveBeenCalledWith('go');
  });
});
