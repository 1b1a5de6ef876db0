export * from './format';
export * from './names';
export * from './sentences';
