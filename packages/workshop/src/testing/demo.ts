import { type Plan } from '@zaffet/contract';
import { parsePlan } from '@zaffet/contract/schemas';
import { readdirSync, readFileSync } from 'node:fs';

const DEMO = new URL('../../../../demo/plans/', import.meta.url);

/** A plan of the demo, by its file's name. */
export const demoPlan = (name: string): Plan =>
  parsePlan(JSON.parse(readFileSync(new URL(`${name}.json`, DEMO), 'utf8')));

/** All plans of the demo. */
export const demoPlans = (): Plan[] => readdirSync(DEMO).map((file) => demoPlan(file.replace(/\.json$/, '')));
