export * from './findings';
export * from './format';
export * from './hazards';
export * from './methods';
export * from './names';
export * from './prep';
export * from './sentences';
export * from './natural';
