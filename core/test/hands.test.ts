/** Straights that either hand throws from one stance. */
import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { halfWidth, isAbsent } from '../src/foundation/reading/reading';
import { strikeStance } from '../src/foundation/technique/strike';
import { techniqueById } from '../src/foundation/technique/techniques';
import { measure } from '../src/analysis/analyze';
import { markOnFrame } from '../src/measure/events/events';
import { nearestFrame } from '../src/observe/track/time';

describe.each(['stepping-straight', 'whip-straight', 'chambered-straight'] as const)('%s', (id) => {
  it('with the left hand is an orthodox student’s, where the student is one', () => {
    const technique = techniqueById(id);
    expect(strikeStance({ technique, side: 'left', stance: 'orthodox' })).toBe('orthodox');
    expect(strikeStance({ technique, side: 'right', stance: 'southpaw' })).toBe('southpaw');
  });

  it('of the lead hand is measured as what it is', () => {
    const recipe = clean(id, { by: 'lead' });
    const truth = truthOfStrike(recipe);
    expect(truth.side).toBe('left');
    const track = knownTrack(recipe, { rate: 240, noise: 0.002, seed: 2 });
    const contact = markOnFrame(track.frameTimes, nearestFrame(track.frameTimes, recipe.contact));
    const { events, readings } = measure({
      strike: { technique: truth.technique, side: 'left', stance: 'orthodox' },
      track,
      marks: { contact },
      body: { mass: 70, height: recipe.height },
    });
    // Turning the way it does, its pelvis starts; the other way it would be a load.
    expect(Math.abs(events.hips!.time - truth.times.hips!)).toBeLessThan(
      1.5 * halfWidth(events.hips!),
    );
    const speed = readings['speed.contact'];
    if (isAbsent(speed)) throw new Error(speed.absent);
    expect(Math.abs(speed.value - truth.values['speed.contact']!)).toBeLessThan(halfWidth(speed));
  });
});
