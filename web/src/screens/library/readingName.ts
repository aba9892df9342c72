import { MEASURE_NAMES } from '@sinew/core/measure/measures/allMeasures';
import { SET_NAMES } from '@sinew/core/measure/measures/set';

const NAMES: Readonly<Record<string, string>> = { ...MEASURE_NAMES, ...SET_NAMES };

/** A reading of a strike or a set, as the library names it. */
export const readingName = (id: string): string => NAMES[id] ?? id;
