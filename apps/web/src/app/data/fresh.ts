/** What must be new each time comes from here, so that reducers and the core stay free of clocks and chance. */
export const now = (): Date => new Date();
export const newId = (): string => crypto.randomUUID();
export const newSeed = (): number => crypto.getRandomValues(new Uint32Array(1))[0]! >>> 1;
