import { type BenchTask, type StepRun } from '@zaffet/workshop';

/** Glue in sections as far as it is told. */
export interface SectionsTold {
  readonly sections: StepRun['sections'];
  readonly count: number;
  /** The glued section that has waited longest for its paint. */
  readonly oldest: number | null;
  /** The next that is bare. */
  readonly bare: number | null;
}

export function sectionsTold({ sections: meant }: BenchTask, told: StepRun | null): SectionsTold {
  const sections = told?.sections ?? [];
  const count = Math.max(1, meant, sections.length);
  const open = sections.flatMap(({ gluedAt, paintedAt }, index) =>
    gluedAt !== null && paintedAt === null ? [{ index, gluedAt }] : [],
  );
  const bare = Array.from({ length: count }, (_, index) => index).find(
    (index) => sections[index]?.gluedAt == null,
  );
  return {
    sections,
    count,
    oldest: open.sort((a, b) => a.gluedAt - b.gluedAt)[0]?.index ?? null,
    bare: bare ?? null,
  };
}
