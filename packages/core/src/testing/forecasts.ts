import { onTables } from '../basis';
import { type Course, courseOf } from '../course';
import { forecast, type Forecast } from '../forecast';
import { type Region } from '../maps';
import { type PanelPlan } from '../plan';

/** What a plan comes to on the tables alone. */
export const forecastOf = (plan: PanelPlan, region?: Region): Forecast => forecast(onTables(plan), region);
export const courseOn = (plan: PanelPlan): Course => courseOf(onTables(plan));
