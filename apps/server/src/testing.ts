import { newPlan, type Plan } from '@zaffet/contract';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A folder of its own for a test's database, gone afterwards. */
export function scratchFolder(): { path: string; remove: () => void } {
  const root = mkdtempSync(join(tmpdir(), 'zaffet-'));
  return { path: join(root, 'data'), remove: () => rmSync(root, { recursive: true, force: true }) };
}

/** A valid plan of a name. */
export function planNamed(name: string): Plan {
  let next = 0;
  return newPlan('dried-medium', name, 5, '2026-05-12T08:00:00.000Z', () => `id-${++next}`);
}
