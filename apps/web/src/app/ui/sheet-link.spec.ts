import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import { API, fault, type SheetQueue } from '@zaffet/contract';
import { nextRequest, until } from '../testing/requests';
import { queueText, SheetLink } from './sheet-link';

@Component({
  imports: [SheetLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<a zfSheet href="#sheet">Job sheet</a>`,
})
class Page {}

describe('a link to a sheet', () => {
  const told: string[] = [];
  let fetched: number;
  let http: HttpTestingController;
  let link: HTMLAnchorElement;

  beforeEach(() => {
    told.length = fetched = 0;
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideHttpClient(),
        provideHttpClientTesting(),
        { provide: MatSnackBar, useValue: { open: (text: string) => void told.push(text) } },
      ],
    });
    const fixture = TestBed.createComponent(Page);
    fixture.detectChanges();
    http = TestBed.inject(HttpTestingController);
    link = (fixture.nativeElement as HTMLElement).querySelector('a')!;
    link.addEventListener('click', (event) => {
      if (!event.defaultPrevented) fetched += 1;
      event.preventDefault();
    });
  });
  const answered = async (queue: SheetQueue | null): Promise<string> => {
    link.click();
    const request = await nextRequest(http, 'GET', API.sheets);
    if (queue === null) request.error(new ProgressEvent('away'));
    else request.flush(queue);
    await until(() => told.length > 0);
    return told.pop()!;
  };

  it('says how long it takes and lets the browser fetch it, once for each click', async () => {
    expect(await answered({ before: 0, seconds: 4, share: null, refused: null })).toBe(
      'The sheet is being made: about 4 s.',
    );
    expect(fetched).toBe(1);
    expect(await answered({ before: 2, seconds: null, share: null, refused: null })).toBe(
      '2 sheets come first; it comes by itself.',
    );
    expect(fetched).toBe(2);
    expect(link.hasAttribute('download')).toBeTrue();
    expect(queueText({ before: 1, seconds: 9, share: null, refused: null })).toBe(
      '1 sheet comes first: about 9 s.',
    );
  });

  it('says how much is done while it is being made, now and then', async () => {
    await answered({ before: 0, seconds: null, share: null, refused: null });
    for (const share of [0.2, 0.24, 0.5, null])
      (await nextRequest(http, 'GET', API.sheets)).flush({ before: 1, seconds: null, share, refused: null });
    await until(() => told.length === 2);
    expect(told).toEqual(['The sheet is being made: 20 % done.', 'The sheet is being made: 50 % done.']);
  });

  it('says why there is none just now, and fetches nothing', async () => {
    const busy = fault('server.busy', [{ path: 'sheets', message: '9 sheets come first, about 40 s.' }]);
    expect(await answered({ before: 9, seconds: 40, share: null, refused: busy })).toMatch(
      /too much to do.* about 40 s\.$/,
    );
    expect(await answered(null)).toContain('cannot be reached');
    expect(fetched).toBe(0);
  });
});
