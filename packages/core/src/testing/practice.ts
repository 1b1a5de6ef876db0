import { type Cover, type PanelPlan } from '../plan';
import { type ZoneForecast } from '../outcome';
import { forecastOf } from './forecasts';

/** What a plan comes to on the whole panel. */
export const wholeOf = (plan: PanelPlan): ZoneForecast => forecastOf(plan).whole;

export const part = (share: number): Cover => ({ style: 'blotchy', share });
