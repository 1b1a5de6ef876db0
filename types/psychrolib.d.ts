/** The part of psychrolib 1.1 that the checks use. */
declare const psychrolib: {
  SI: number;
  SetUnitSystem(system: number): void;
  GetSatVapPres(temperatureC: number): number;
  GetTDewPointFromRelHum(temperatureC: number, humidity: number): number;
  GetTWetBulbFromRelHum(temperatureC: number, humidity: number, pressure: number): number;
};
export default psychrolib;
