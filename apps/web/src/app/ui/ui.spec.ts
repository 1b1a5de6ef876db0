import { provideZonelessChangeDetection } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { LIMITS } from '@zaffet/contract';
import { inches } from '@zaffet/words';
import { Band } from './band';
import { Clock } from '../data/clock';
import { provideMoments } from '../data/moments';
import { Units } from '../data/units';
import { MomentField } from './moment-field';
import { NumberField } from './number-field';

function fieldOf(inputs: Record<string, unknown>): {
  fixture: ComponentFixture<NumberField>;
  box: HTMLInputElement;
  given: (number | null)[];
} {
  TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
  const fixture = TestBed.createComponent(NumberField);
  const all = { label: 'Wet film thickness', value: 90, limit: LIMITS.thicknessUm, ...inputs };
  for (const [key, value] of Object.entries(all)) fixture.componentRef.setInput(key, value);
  const given: (number | null)[] = [];
  fixture.componentInstance.changed.subscribe((value) => given.push(value));
  fixture.detectChanges();
  return { fixture, box: (fixture.nativeElement as HTMLElement).querySelector('input')!, given };
}

function type(box: HTMLInputElement, text: string): void {
  box.value = text;
  box.dispatchEvent(new Event('input'));
  box.dispatchEvent(new Event('change'));
}

describe('number field', () => {
  it('shows value and unit, and gives a new value when it is left', () => {
    const { fixture, box, given } = fieldOf({});
    expect(box.value).toBe('90');
    expect((fixture.nativeElement as HTMLElement).textContent).toContain('µm');
    type(box, '120,5');
    expect(given).toEqual([120.5]);
  });

  it('keeps what was typed out of range, says what is allowed, and gives nothing', () => {
    const { fixture, box, given } = fieldOf({});
    for (const text of ['9999', 'thick', '']) {
      type(box, text);
      fixture.detectChanges();
      expect(box.value).toBe(text);
      expect((fixture.nativeElement as HTMLElement).querySelector('[role=alert]')!.textContent).toContain(
        '4 to 1200 µm',
      );
    }
    expect(given).toEqual([]);
  });

  it('turns the value into the shown unit and back', () => {
    const { box, given } = fieldOf({ value: 0.25, limit: LIMITS.dilution, factor: 100, unit: '%' });
    expect(box.value).toBe('25');
    type(box, '40');
    expect(given).toEqual([0.4]);
  });

  it('steps with the arrow keys and stays inside', () => {
    const { box, given } = fieldOf({ value: 1200 });
    box.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp' }));
    box.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown' }));
    expect(given).toEqual([1199]);
  });

  it('shows the other system and keeps every digit of what nobody changed', () => {
    const { fixture, box, given } = fieldOf({ value: 90 });
    TestBed.inject(Units).choose('imperial');
    fixture.detectChanges();
    expect(box.value).toBe('3.54');
    expect((fixture.nativeElement as HTMLElement).textContent).toContain('mil');
    type(box, '3.54');
    expect(given).toEqual([]);
    type(box, '5');
    expect(given[0]).toBeCloseTo(127, 9);
    TestBed.inject(Units).choose('metric');
  });

  it('goes by sixteenths of an inch, and takes fractions and the ends of its range', () => {
    const { fixture, box, given } = fieldOf({ value: 450, limit: LIMITS.sideMm });
    TestBed.inject(Units).choose('imperial');
    fixture.detectChanges();
    expect(box.value).toBe('17 11/16');
    box.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp' }));
    expect(given.at(-1)).toBeCloseTo(450 + 25.4 / 16, 9);
    type(box, '20 1/2');
    expect(given.at(-1)).toBeCloseTo(520.7, 9);
    type(box, inches(LIMITS.sideMm.max / 25.4));
    expect(given.at(-1)).toBe(LIMITS.sideMm.max);
    TestBed.inject(Units).choose('metric');
  });

  it('may be empty where a wish may be missing', () => {
    const { box, given } = fieldOf({ value: 3, limit: LIMITS.spacingMm, optional: true });
    type(box, '');
    expect(given).toEqual([null]);
  });
});

describe('band', () => {
  function bandOf(inputs: Record<string, unknown>): SVGElement {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(Band);
    for (const [key, value] of Object.entries({ value: 4, low: 2, high: 8, from: 1, to: 16, ...inputs }))
      fixture.componentRef.setInput(key, value);
    fixture.detectChanges();
    return (fixture.nativeElement as HTMLElement).querySelector('svg')!;
  }
  const at = (svg: SVGElement, selector: string, attribute: string): number =>
    Number(svg.querySelector(selector)!.getAttribute(attribute));

  it('puts the value in its band on a logarithmic bar', () => {
    const svg = bandOf({});
    expect(at(svg, '.value', 'x') + 1.5).toBeCloseTo(120, 3);
    expect(at(svg, '.band', 'x')).toBeCloseTo(60, 3);
    expect(at(svg, '.band', 'width')).toBeCloseTo(120, 3);
    expect(svg.querySelector('.wanted')).toBeNull();
  });

  it('marks a wish, and shows nothing where there is no value', () => {
    expect(bandOf({ wanted: 8 }).querySelector('.wanted')!.getAttribute('d')).toContain('M175');
    TestBed.resetTestingModule();
    expect(bandOf({ value: null }).querySelector('.value')).toBeNull();
  });
});

describe('moment field', () => {
  function momentOf(inputs: Record<string, unknown>): {
    boxes: HTMLInputElement[];
    given: (Date | null)[];
    fixture: ComponentFixture<MomentField>;
  } {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), provideMoments()] });
    const fixture = TestBed.createComponent(MomentField);
    const all = { label: 'Begins', value: new Date(2026, 4, 13, 8, 30), ...inputs };
    for (const [key, value] of Object.entries(all)) fixture.componentRef.setInput(key, value);
    const given: (Date | null)[] = [];
    fixture.componentInstance.changed.subscribe((value) => given.push(value));
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    return { fixture, boxes: [...host.querySelectorAll('input')], given };
  }
  const typed = (box: HTMLInputElement, text: string): void => {
    type(box, text);
    box.dispatchEvent(new Event('blur'));
  };

  it('is written by day and time, and gives the day that was typed at the same time', () => {
    const { boxes, given } = momentOf({});
    expect(boxes.map(({ value }) => value)).toEqual(['13 May 2026', '08:30']);
    typed(boxes[0]!, '14 May 2026');
    expect(given).toEqual([new Date(2026, 4, 14, 8, 30)]);
  });

  it('gives the time that was typed on the same day', () => {
    const { boxes, given } = momentOf({});
    typed(boxes[1]!, '09:05');
    expect(given).toEqual([new Date(2026, 4, 13, 9, 5)]);
  });

  it('says of what is no moment that it is none, and gives nothing', () => {
    const { fixture, boxes, given } = momentOf({});
    typed(boxes[0]!, '31 February 2026');
    fixture.detectChanges();
    expect(given).toEqual([]);
    expect((fixture.nativeElement as HTMLElement).querySelector('[role=alert]')).not.toBeNull();
  });

  it('may be emptied where nobody need say, by the day alone', () => {
    const { boxes, given } = momentOf({ time: false });
    expect(boxes.length).toBe(1);
    typed(boxes[0]!, '');
    expect(given).toEqual([null]);
  });

  it('follows the clock that is chosen', () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const clock = TestBed.inject(Clock);
    clock.choose('12');
    expect(clock.time(new Date(2026, 4, 13, 14, 5))).toBe('2:05 PM');
    clock.choose('24');
    expect(clock.time(new Date(2026, 4, 13, 14, 5))).toBe('14:05');
  });
});
