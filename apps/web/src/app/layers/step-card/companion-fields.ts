import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { type CompanionStep, LIMITS, type Part, type Print, PRINT_HOLDERS } from '@zaffet/contract';
import { COMPANION_TASKS, type CompanionTask } from '@zaffet/core/plan';
import { minutesToSeconds } from '@zaffet/core/units';
import { stainDarkness, WOODS } from '@zaffet/core/wood';
import { perCent, PRINT_HOLDER_NAMES, TASK_WORDS, WOOD_NAMES } from '@zaffet/words';
import { newCompanion } from '@zaffet/workshop';
import { ChoiceField, optionsOf } from '../../ui/choice-field';
import { NumberField } from '../../ui/number-field';
import { smallPicture } from '../../ui/small-picture';

/** Work beside the layers: which, how long, and what belongs to it alone. */
@Component({
  selector: 'zf-companion-fields',
  imports: [ChoiceField, MatButtonModule, MatIconModule, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './companion-fields.html',
  styleUrl: './fields.scss',
})
export class CompanionFields {
  readonly step = input.required<CompanionStep>();
  readonly part = input.required<Part>();
  readonly changed = output<Partial<Omit<CompanionStep, 'id' | 'kind'>>>();
  protected readonly limits = LIMITS;
  protected readonly taskWords = TASK_WORDS;
  protected readonly tasks = COMPANION_TASKS.map((task) => ({ value: task, name: TASK_WORDS[task].name }));
  protected readonly woods = [{ value: '', name: 'not said' }, ...optionsOf(WOOD_NAMES, WOODS)];
  protected readonly holders = optionsOf(PRINT_HOLDER_NAMES, PRINT_HOLDERS);
  protected readonly places = computed(() => [
    { value: '', name: 'all of the part' },
    ...[...new Set(this.part().zones.map(({ name }) => name))].map((name) => ({ value: name, name })),
  ]);
  protected readonly stainText = computed(() => {
    const { wood, restMin } = this.step();
    if (wood === null) return null;
    const turned = perCent(stainDarkness(wood, minutesToSeconds(restMin)));
    return `Sitting so long it takes ${turned} of the wood's own colour away, towards iron grey. Try it on the underside.`;
  });
  protected readonly fault = signal<string | null>(null);

  /** Other work takes its own usual time. */
  protected setTask(task: CompanionTask): void {
    const { handsMin, restMin, wood, print } = newCompanion('', task);
    this.changed.emit({ task, handsMin, restMin, wood, print });
  }

  protected changePrint(print: Print, changes: Partial<Print>): void {
    this.changed.emit({ print: { ...print, ...changes } });
  }

  protected async takePicture(print: Print, input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (file === undefined) return;
    const picture = await smallPicture(file, LIMITS.printLength.max);
    this.fault.set(picture === null ? 'This is no picture Zaffet can read: take a PNG, JPEG or WebP.' : null);
    if (picture !== null) this.changePrint(print, { picture });
  }
}
