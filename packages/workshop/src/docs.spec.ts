import { LIMITS, PLAN_VERSION } from '@zaffet/contract';
import { MEDIUM_KEYS, SUBSTRATE_KEYS } from '@zaffet/core/media';
import {
  COAT_AGES,
  COMPANION_TASKS,
  COVERS,
  HEAT_TOOLS,
  OLD_COATS,
  PLACES,
  PREP_STEPS,
  RESIST_AGENTS,
  START_STATES,
  STEP_KINDS,
  USES,
} from '@zaffet/core/plan';
import { FIGURE_KEYS } from '@zaffet/core/readout';
import { DISTRESS_TOOLS } from '@zaffet/core/tools';
import { existsSync, readFileSync } from 'node:fs';

const doc = (name: string): string => readFileSync(new URL(`../../../docs/${name}`, import.meta.url), 'utf8');

/** Keys that a document tells, and lists that must be among them. */
const TOLD: Readonly<Record<string, Readonly<Record<string, readonly string[]>>>> = {
  'plan-file.md': {
    media: MEDIUM_KEYS.filter((key) => !RESIST_AGENTS.includes(key as never) && key !== 'bleach'),
    substrates: SUBSTRATE_KEYS,
    'old coats': OLD_COATS,
    ages: COAT_AGES,
    uses: USES,
    'preparation steps': PREP_STEPS,
    steps: STEP_KINDS,
    states: START_STATES,
    covers: COVERS,
    places: PLACES,
    resists: RESIST_AGENTS,
    'hot air': HEAT_TOOLS,
    tools: DISTRESS_TOOLS,
    'other work': COMPANION_TASKS,
  },
  'predict.md': { figures: FIGURE_KEYS },
};

describe('documents that repeat a table of the code', () => {
  for (const [name, lists] of Object.entries(TOLD)) {
    const text = doc(name);
    for (const [what, keys] of Object.entries(lists)) {
      it(`tell all ${what}: ${name}`, () => {
        expect(keys.filter((key) => !text.includes(`\`${key}\``) && !text.includes(`"${key}"`))).toEqual([]);
      });
    }
  }

  it('tell what each version of the plan file changed, to the last: plan-file.md', () => {
    const text = doc('plan-file.md');
    for (let version = 1; version < PLAN_VERSION; version++)
      expect(text).toContain(`\n${version} → ${version + 1}: `);
    const row = text.split('\n').find((line) => line.startsWith('| `version`'))!;
    expect(row).toContain(`\`${PLAN_VERSION}\``);
  });

  it('name files that are there', () => {
    const there = (path: string): boolean =>
      ['', 'packages/core/src/'].some((from) =>
        existsSync(new URL(`../../../${from}${path}`, import.meta.url)),
      );
    for (const name of [
      'air.md',
      'bench.md',
      'boards.md',
      'formats.md',
      'guide.md',
      'model.md',
      'plan-file.md',
      'predict.md',
      'settings.md',
    ]) {
      const named = [...doc(name).matchAll(/`([\w./-]+\.ts)`/g)].map(([, path]) => path!);
      expect(named.filter((path) => !there(path)))
        .withContext(name)
        .toEqual([]);
    }
  });

  it('tell the limits of a plan as they are: plan-file.md', () => {
    const text = doc('plan-file.md').replace(/\s+/g, ' ');
    const { rounds, columns, rows, layers, steps, palette, ingredients, ownMedia, later, zones, spacingMm } =
      LIMITS;
    for (const said of [
      `\`rounds\` ${rounds.min} to ${rounds.max}`,
      `${columns.max} × ${rows.max} cells`,
      `${steps.min} to ${steps.max}, which lay at most ${layers.max} films and resists`,
      `at most ${palette.max}, of at most ${ingredients.max} ingredients`,
      `at most ${ownMedia.max}`,
      `at most ${later.max}`,
      `at most ${zones.max}`,
      `${spacingMm.min} to ${spacingMm.max} mm`,
    ])
      expect(text).toContain(said);
  });
});
