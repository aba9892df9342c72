/** What a technique is about, in a coach's words (common trade knowledge, no source). */

export interface Teaching {
  readonly power: string;
  readonly atContact: string;
  readonly particular: string;
}

const HOOK: Teaching = {
  power: 'Weight goes from foot to foot while the trunk turns; the opposite shoulder pulls back.',
  atContact: 'Elbow about 90° and unchanged through contact, elbow behind the fist.',
  particular:
    'The hand leaves the guard sideways only as far as the target asks, then travels across; it never draws back. Fist form and foot are matters of school.',
};
const UPPERCUT: Teaching = {
  power: 'Legs: sink first, then extend through the punch.',
  atContact: 'Palm to self; about 45° to the head, nearer upright to the body.',
  particular: 'Sinking is the load; the fist does not drop below the elbow to wind up.',
};

export const TEACHING: Readonly<Record<string, Teaching>> = {
  jab: {
    power: 'Push of the rear foot, a slight turn; a step adds most.',
    atContact: 'Shoulder to cheek, shoulders in line with the punch, elbow on the line.',
    particular: 'A range finder: no deliberate foot pivot, hips little or none by school.',
  },
  cross: {
    power: 'The rear leg drives, hips and trunk turn until the shoulders face the target.',
    atContact: 'Rear shoulder to cheek, front knee bent and fixed, front foot down.',
    particular: 'The hardest straight; the rear foot pivots on its ball.',
  },
  'lead-hook': HOOK,
  'rear-hook': {
    ...HOOK,
    power: 'The rear leg drives; the elbow opens to about 90°, then is fixed.',
  },
  'lead-body-hook': { ...HOOK, particular: 'The level changes by the knees, not at the waist.' },
  'rear-body-hook': { ...HOOK, particular: 'The level changes by the knees, not at the waist.' },
  'lead-uppercut': UPPERCUT,
  'rear-uppercut': UPPERCUT,
  'stepping-straight': {
    power: 'Push of the rear foot, and the hips turn in the air: travel plus turn.',
    atContact: 'The fist lands before or together with the front foot.',
    particular: 'Without the turn it is a push: by trade estimate 30–40 % is lost.',
  },
  'whip-straight': {
    power: 'The hip goes out and returns before contact; the fist keeps going like a whip’s tip.',
    atContact: 'Body square again, elbow a little bent, relaxed.',
    particular: 'From a square, bent-knee stance; short range.',
  },
  'chambered-straight': {
    power: 'Hip and waist, the opposite hand pulled to the hip, the turn-over at the end.',
    atContact: 'On the centre line.',
    particular: 'Pattern and line work; the body relaxes, rises, falls.',
  },
  'elbow-round': {
    power: 'Pivot on the ball of the striking side’s foot, hips, trunk.',
    atContact: 'Palm in; it passes through the target, never stops at it.',
    particular: 'The foot is set down again before going to the other side.',
  },
  'elbow-reverse': {
    power:
      'The body turns away over bent legs, then legs and trunk open together; the leg on the far side pushes.',
    atContact: 'The back of the elbow, the nerve side kept away.',
    particular: 'Backward and across.',
  },
  'elbow-rise': {
    power: 'A small turn of the hips and the whole body rising.',
    atContact: 'Open hand beside the head.',
    particular: 'Covers while it strikes.',
  },
  'elbow-drop': {
    power: 'The body rises, then sinks: a squat or a lunge onto it.',
    atContact: 'Elbow tip straight down.',
    particular: 'Keep the nerve side away; in a lunge the rear heel lifts.',
  },
  'elbow-up': {
    power: 'The legs spring up.',
    atContact: 'Chin or body, close.',
    particular: 'An uppercut without the forearm.',
  },
  'elbow-thrust': {
    power: 'A step, and both hands framing.',
    atContact: 'Straight in, the forward hand shields the head.',
    particular: 'How far the body travels with it is what counts.',
  },
  'elbow-spin': {
    power: 'Turn of the whole body with a step.',
    atContact: 'The target is behind.',
    particular: 'Look first; the step adds mass.',
  },
  'front-kick': {
    power: 'Hip drive through the target.',
    atContact: 'Ball of the foot or heel; support knee a little bent, body not thrown back.',
    particular: 'Support leg, hips forward, knee lift, shank, foot.',
  },
  'round-kick': {
    power: 'The pelvis opens: the support heel turns to the target before contact.',
    atContact: 'Hip over, shin or instep, support heel up.',
    particular: 'Lands with the hip ahead of the knee; comes back to stance.',
  },
  'side-kick': {
    power: 'Support pivot, pelvis turn, then hip and knee extend.',
    atContact: 'Heel, toes level or down.',
    particular: 'Heel, hip and shoulder on one line to the target.',
  },
  'knee-strike': {
    power: 'Hips through.',
    atContact: 'Point of the knee; the trunk leans back a little.',
    particular: 'The support leg extends, the pelvis thrusts forward.',
  },
};
