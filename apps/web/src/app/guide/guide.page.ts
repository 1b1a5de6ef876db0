import { HttpClient } from '@angular/common/http';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  inject,
  input,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { ActivatedRoute, RouterLink } from '@angular/router';
import { Marked } from 'marked';
import { catchError, map, of, switchMap } from 'rxjs';

/** Pages of the guide, by their name in the address. */
const PAGES = ['guide', 'model', 'network', 'plan-file', 'predict'];
/** Where the pages and their pictures lie. */
const FOLDER = '/handbook/';

/** Links between the pages and to pictures lead into the application; those to elsewhere stay as they are. */
const marked = new Marked({
  walkTokens: (token) => {
    if (token.type === 'image') token['href'] = FOLDER + String(token['href']);
    if (token.type === 'link')
      token['href'] = String(token['href']).replace(/^([a-z-]+)\.md(#.*)?$/, `/guide/read/$1`);
  },
});

/** The way through Zaffet for a painter, as it ships with it. */
@Component({
  selector: 'zf-guide-page',
  imports: [MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <a class="home" routerLink="/plans" aria-label="All plans">Zaffet</a>
      <span class="spacer"></span>
      <a mat-button routerLink="/plans">All plans</a>
    </header>
    @if (html(); as text) {
      <main [innerHTML]="text"></main>
    } @else if (html() === '') {
      <main role="alert">
        <h1>The guide cannot be read just now</h1>
        <p>Load the page again.</p>
      </main>
    } @else {
      <main aria-busy="true"><p class="quiet">Fetching the guide …</p></main>
    }
  `,
  styleUrl: './guide.page.scss',
})
export class GuidePage {
  private readonly http = inject(HttpClient);
  /** From the address; the guide itself when there is no such page. */
  readonly page = input<string>();

  /** The page as HTML, which Angular makes harmless; null while it is fetched, empty when it cannot be. */
  protected readonly html = toSignal(
    toObservable(this.page).pipe(
      map((page) => PAGES.find((known) => known === page) ?? 'guide'),
      switchMap((page) =>
        this.http.get(`${FOLDER}${page}.md`, { responseType: 'text' }).pipe(
          map((text) => marked.parse(text, { async: false })),
          catchError(() => of('')),
        ),
      ),
    ),
    { initialValue: null },
  );

  constructor() {
    const page = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const fragment = toSignal(inject(ActivatedRoute).fragment, { initialValue: null });
    // Headings have no addresses of their own: the one that begins with the word asked for is shown.
    afterRenderEffect(() => {
      const word = fragment()?.toLowerCase();
      if (word === undefined || !this.html()) return;
      const titles = [...page.querySelectorAll('h2')];
      titles.find(({ textContent }) => textContent.toLowerCase().includes(word))?.scrollIntoView();
    });
  }
}
