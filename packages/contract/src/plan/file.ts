import { packPercent, unpackPercent } from './packed';
import { type Part } from './piece.types';
import { type StepMap } from './steps.types';
import { type Plan } from './types';

/** A step's map as it is filed: its per cent packed, see docs/plan-file.md. */
export interface FiledMap {
  readonly columns: number;
  readonly rows: number;
  readonly percent: string;
}
type FiledPart = Omit<Part, 'maps'> & { readonly maps: Readonly<Record<string, FiledMap>> };
type FiledPiece = Omit<Plan['piece'], 'parts'> & { readonly parts: readonly FiledPart[] };

/** A plan as it is filed, sent and stored. */
export type PlanFile = Omit<Plan, 'piece'> & { readonly piece: FiledPiece };

/** Maps packed before, so that a save packs only those that changed. */
const packed = new WeakMap<StepMap, FiledMap>();

function packedMap(map: StepMap): FiledMap {
  let filed = packed.get(map);
  if (filed === undefined) {
    filed = { ...map, percent: packPercent(map.percent) };
    packed.set(map, filed);
  }
  return filed;
}

const mapsOf = <From, To>(
  maps: Readonly<Record<string, From>>,
  change: (map: From) => To,
): Record<string, To> =>
  Object.fromEntries(Object.entries(maps).map(([stepId, map]) => [stepId, change(map)]));

/** A plan as it goes into a file, over the wire or into the database. */
export function filePlan(plan: Plan): PlanFile {
  const parts = plan.piece.parts.map((part) => ({ ...part, maps: mapsOf(part.maps, packedMap) }));
  return { ...plan, piece: { ...plan.piece, parts } };
}

/** A map out of what was filed, which it keeps for the next filing; null where that holds no such map. */
export function unpackMap(filed: FiledMap): StepMap | null {
  const percent = unpackPercent(filed.percent, filed.columns * filed.rows);
  if (percent === null) return null;
  const map = { columns: filed.columns, rows: filed.rows, percent };
  packed.set(map, filed);
  return map;
}

/**
 * A plan out of what `filePlan` wrote. Only for what a schema has checked before: a map that cannot be unpacked is empty.
 */
export function unfilePlan(file: PlanFile): Plan {
  const parts = file.piece.parts.map((part) => ({
    ...part,
    maps: mapsOf(part.maps, (filed): StepMap => unpackMap(filed) ?? { ...filed, percent: [] }),
  }));
  return { ...file, piece: { ...file.piece, parts } };
}
