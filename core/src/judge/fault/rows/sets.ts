/** Which techniques a fault belongs to, by what they have in common. */
import { TECHNIQUES, type Technique } from '../../../foundation/technique/techniques';

type Id = Technique['id'];
const where = (test: (technique: Technique) => boolean): Id[] =>
  TECHNIQUES.filter(test).map(({ id }) => id);

export const STRAIGHTS = where(({ family }) => family === 'straight');
export const HOOKS = where(({ family }) => family === 'hook');
export const UPPERCUTS = where(({ family }) => family === 'uppercut');
export const PUNCHES = where(({ end }) => end === 'fist');
export const ELBOWS = where(({ family }) => family === 'elbow');
export const KICKS = where(({ family }) => family === 'kick');
export const ALL = where(() => true);
/** Strikes on two feet. */
export const STANDING = [...PUNCHES, ...ELBOWS];
/** Elbows that turn into the target and not up, down or straight in. */
export const TURNING_ELBOWS = where(({ family, start }) => family === 'elbow' && start === 'turn');
/** Punches, and elbows that turn, whose hips are expected to start. */
export const HIPS_LED = [
  ...where(({ end, hipsLead }) => end === 'fist' && hipsLead),
  ...TURNING_ELBOWS,
];

export const without = (all: readonly Id[], ...not: Id[]) => all.filter((id) => !not.includes(id));

export const degrees = (value: number) => (value * Math.PI) / 180;
