export { findInLog } from './find';
export { LogReader } from './reader';
export { logRoutes } from './routes';
