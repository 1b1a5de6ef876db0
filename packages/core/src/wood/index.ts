export { equilibriumMoisture, moistureReady } from './moisture';
