import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { duration, stepTitle } from '@zaffet/words';
import { sittings } from '@zaffet/workshop';
import { format } from 'date-fns';
import { planFeature } from '../plan/plan.feature';
import { Clock } from '../data/clock';

/** What is done when, over all parts of the piece. */
@Component({
  selector: 'zf-days-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>What is done when</h1>
    <p class="quiet">{{ summary() }}</p>
    @for (day of days(); track day.name) {
      <section [attr.aria-label]="day.name">
        <h2>
          {{ day.name }} <small class="quiet">{{ day.work }}</small>
        </h2>
        <table>
          <caption class="visually-hidden">
            Work on
            {{
              day.name
            }}
          </caption>
          <thead class="visually-hidden">
            <tr>
              <th scope="col">From</th>
              <th scope="col">What</th>
              <th scope="col">On</th>
              <th scope="col">Hands</th>
            </tr>
          </thead>
          <tbody>
            @for (line of day.lines; track line.id) {
              <tr [class.clash]="line.clash">
                <td class="from">{{ line.from }}</td>
                <th scope="row">
                  <i [style.background]="line.colour"></i>{{ line.title }}
                  @if (line.clash) {
                    <small class="trouble">the {{ line.clash }} still has your hands</small>
                  }
                </th>
                <td>{{ line.part }}</td>
                <td class="hands">{{ line.hands }}</td>
              </tr>
            }
          </tbody>
        </table>
      </section>
    }
    <p class="quiet">
      When a step may begin is set on its card in Layers, working hours above the readout there.
    </p>
  `,
  styleUrl: './days.page.scss',
})
export class DaysPage {
  private readonly clock = inject(Clock);
  private readonly store = inject(Store);
  private readonly file = this.store.selectSignal(planFeature.selectFile);

  private readonly done = computed(() => {
    const file = this.file();
    if (file === null) return [];
    const start = Date.parse(file.startsAt);
    return sittings(file).map(({ partId, partName, step, at, hands, clashes }) => ({
      id: `${partId} ${step.id}`,
      when: new Date(start + at * 1000),
      title: stepTitle(step, file.media),
      colour: 'colour' in step ? step.colour : null,
      part: partName,
      seconds: hands,
      clash: clashes?.toLowerCase() ?? null,
    }));
  });

  protected readonly days = computed(() => {
    const days = new Map<string, ReturnType<typeof this.done>>();
    for (const line of this.done()) {
      const name = format(line.when, 'EEEE, d MMMM');
      days.set(name, [...(days.get(name) ?? []), line]);
    }
    return [...days].map(([name, lines]) => ({
      name,
      work: `${duration(lines.reduce((sum, { seconds }) => sum + seconds, 0))} of work`,
      lines: lines.map((line) => ({
        ...line,
        from: this.clock.time(line.when),
        hands: duration(line.seconds),
      })),
    }));
  });

  protected readonly summary = computed(() => {
    const lines = this.done();
    const parts = new Set(lines.map(({ part }) => part)).size;
    const clashes = lines.filter(({ clash }) => clash !== null).length;
    const work = duration(lines.reduce((sum, { seconds }) => sum + seconds, 0));
    const alone = parts > 1 ? 'Each part is timed as if it alone had you. ' : '';
    const twice =
      clashes === 0
        ? 'Nothing wants your hands while they are at something else.'
        : `${clashes === 1 ? 'Once' : `${clashes} times`} two parts want your hands at once: begin one of them later, or have someone help.`;
    return `${work} of work. ${alone}${twice}`;
  });
}
