import {
  type Course,
  type FilmCracks,
  type FilmRun,
  dampAt,
  PACE,
  tackyShare,
  type TopcoatWindow,
  working,
} from '../course';
import { isOf } from '../media';
import { panelArea, type PanelPlan } from '../plan';
import { SECONDS_PER_MINUTE } from '../units';
import { type AddFinding } from './codes';
import { COLD, MISSING, TOOL_CHANGE } from './limits';

/** How a coat suits the moment it is laid on the one below: each kind of medium wants another moment. */
export function momentRules(course: Course, add: AddFinding): void {
  const { plan, films, times, windows, cracks } = course;
  for (const { step, comes } of times) if (!comes) add('start-never', 'stop', step.id);
  films.forEach((coat, i) => {
    const below = films[i - 1];
    if (below === undefined) return;
    const window = windows[i - 1]!;
    // In the cold nothing forms a film well: no moment is a good one.
    const cold = coat.medium.carrier === 'water' && coat.first.sample.temperature < COLD;
    pair(coat, cracks[i]!, below, window, (code, level, id, values) => {
      if (!(cold && level === 'good')) add(code, level, id, values);
    });
    const wetted = dampAt(course, coat);
    if (wetted > coat.first.laidAt + 1)
      add('damp-below', 'warn', coat.step.id, { wait: wetted - coat.first.laidAt });
    if (below.medium.kind === 'wet-glue') section(plan, coat, below, window, add);
  });
}

function pair(
  coat: FilmRun,
  crack: FilmCracks | null,
  below: FilmRun,
  window: TopcoatWindow | null,
  add: AddFinding,
): void {
  const { id } = coat.step;
  const early = window === null ? Infinity : window.opensAt - coat.first.laidAt;
  const late = window?.closesAt == null ? -Infinity : coat.first.laidAt - window.closesAt;
  const values = {
    opensAt: window?.opensAt ?? 0,
    closesAt: window?.closesAt ?? 0,
    laidAt: coat.first.laidAt,
  };
  const paints = coat.medium.kind === 'paint' || coat.medium.kind === 'ground';
  switch (below.medium.kind) {
    case 'wet-glue':
      if (late > 0)
        add((crack?.pattern.strength ?? 0) < MISSING ? 'glue-dried' : 'glue-closing', 'warn', id, values);
      else if (early > 0.5) add('glue-still-open', 'good', id, values);
      else add('glue-grabs', 'good', id, values);
      return;
    case 'crackle-medium':
      if (early > 1) add('medium-wet', 'warn', id, values);
      else add('medium-ready', 'good', id, values);
      return;
    case 'cured-glue':
      if (early > 1) add('hide-not-cured', 'warn', id, values);
      else add('hide-ready', 'good', id, values);
      return;
    case 'clear':
      if (isOf(coat.medium, 'casein')) {
        const tacky = tackyShare(below, coat.first.laidAt);
        if (early > 0) add('base-not-dry', 'warn', id, values);
        else if (late > 0) add('sealer-dry', 'tip', id, { ...values, tacky });
        else add('sealer-tacky', 'good', id, { ...values, tacky });
      } else if (early > 1 && coat.medium.like !== below.medium.like) add('base-not-dry', 'warn', id, values);
      return;
    case 'wax':
      if (coat.medium.kind === 'wax' && isOf(below.medium, 'dark') && early > 1)
        add('wax-on-wet-dark', 'warn', id, values);
      return;
    case 'paint':
    case 'primer':
    case 'ground':
    case 'glaze': {
      // A thin or dabbed coat may go on while the one below is only mostly dry, and lacquer over soft paint is wanted.
      const touched = below.openStates.touch !== null && coat.first.laidAt >= below.openStates.touch;
      const loose = coat.step.cover.style !== 'full' || coat.medium.carrier !== below.medium.carrier;
      if (early > 1 && !(loose && touched))
        add('base-not-dry', coat.medium.slipRate > 0 || (paints && !touched) ? 'warn' : 'tip', id, values);
      return;
    }
    case 'resist':
    case 'agent':
      return;
  }
}

/** A panel too large to be glued and painted before the glue skins over is done in sections. */
function section(
  plan: PanelPlan,
  coat: FilmRun,
  below: FilmRun,
  window: TopcoatWindow | null,
  add: AddFinding,
): void {
  const closesAt = window?.closesAt;
  if (closesAt == null || coat.first.laidAt > closesAt) return;
  const largest = Math.max(0, ((closesAt - below.laidAt - TOOL_CHANGE) * PACE.brush) / SECONDS_PER_MINUTE);
  const area = panelArea(plan.panel);
  if (area > largest) {
    add('section-large', 'tip', coat.step.id, {
      area,
      largest,
      sections: Math.ceil(area / Math.max(largest, 1e-3)),
      takes: working(coat.step, plan.panel),
    });
  }
}
