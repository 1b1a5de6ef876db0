import { fault, ZaffetError } from '../errors';
import { PLAN_FORMAT, PLAN_VERSION } from './types';

/** Steps from each version to the next, by the version they read; the first entry will be 1 → 2. */
const MIGRATIONS: Readonly<Record<number, (file: Record<string, unknown>) => Record<string, unknown>>> = {};

/**
 * Brings a file of an older version to the present one; its content is checked afterwards by the schema.
 * @throws ZaffetError `plan.not-a-plan` or `plan.too-new`
 */
export function migratePlan(file: unknown): unknown {
  if (typeof file !== 'object' || file === null || Array.isArray(file)) {
    throw new ZaffetError(fault('plan.not-a-plan'));
  }
  let plan = file as Record<string, unknown>;
  if (plan['format'] !== PLAN_FORMAT || typeof plan['version'] !== 'number') {
    throw new ZaffetError(fault('plan.not-a-plan'));
  }
  if (plan['version'] > PLAN_VERSION) throw new ZaffetError(fault('plan.too-new'));
  for (let step = MIGRATIONS[plan['version']]; step; step = MIGRATIONS[plan['version'] as number])
    plan = step(plan);
  return plan;
}
