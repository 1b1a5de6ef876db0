export { forecast, forecastWith, stepTimes } from './forecast';
export * from './types';
