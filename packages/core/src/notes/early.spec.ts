import { type PanelPlan } from '../plan';
import { NOTE_CASES } from '../testing/cases';
import { courseOn, forecastOf } from '../testing/forecasts';
import { earlyNotes } from './notes';

/** Whether a tool lays anything open is known only with all that comes of a plan. */
const LATE = ['nothing-comes-off', 'barrier-holds'];

describe('what is said of a plan before it is worked out what comes of it', () => {
  const plans = Object.entries(NOTE_CASES).flatMap(([code, { is, isNot }]): [string, PanelPlan][] => [
    [code, is()],
    [`beside ${code}`, isNot()],
  ]);

  it('is the same that is said in the end', () => {
    for (const [name, plan] of plans) {
      const codes = (found: readonly { code: string; stepId: string | null }[]): string[] =>
        found.map(({ code, stepId }) => `${code} ${stepId}`).sort();
      const early = codes(earlyNotes(courseOn(plan), null));
      const all = codes(forecastOf(plan).findings);
      expect(early.filter((finding) => !all.includes(finding)))
        .withContext(name)
        .toEqual([]);
      expect(early.some((finding) => LATE.includes(finding.split(' ')[0]!))).toBeFalse();
    }
  });

  it('knows a cloth, a blade and salt that come at the wrong moment', () => {
    for (const code of ['cloth-in-vain', 'blade-hard', 'salt-loose'] as const) {
      const { is, isNot } = NOTE_CASES[code];
      const says = (plan: PanelPlan): boolean =>
        earlyNotes(courseOn(plan), null).some((finding) => finding.code === code);
      expect([says(is()), says(isNot())])
        .withContext(code)
        .toEqual([true, false]);
    }
  });
});
