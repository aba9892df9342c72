'use client';

import { strikeStance } from '@sinew/core/foundation/technique/strike';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { cameraPlaceOf, viewAt, VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { showsTurn } from '@sinew/core/reconstruct/motion/sight';
import { PlacePlan } from '@/ui/placePlan';
import { documentOf, strikeOf, useBench, useBenchStore } from '../../document/benchStore';
import { placedCamera } from '../../document/edits';

/** Where the camera stood in this film, as exactly as a coach knows it: turns and lengths are read by it. */
export function CameraPlaceHere() {
  const store = useBenchStore();
  const { view, azimuth } = useBench(documentOf);
  const strike = useBench(strikeOf);
  const stance = useBench((state) => state.student.stance);
  const own = strike && {
    technique: techniqueById(strike.technique),
    side: strike.side,
    stance,
  };
  const isSouthpaw = (own ? strikeStance(own) : stance) === 'southpaw';
  const isRearSide = own ? own.side === (isSouthpaw ? 'left' : 'right') : true;
  const place = cameraPlaceOf(view, azimuth);
  const serves = (at: number) => showsTurn(at, isRearSide);
  return (
    <section aria-label="Where the camera stood" className="flex flex-wrap items-start gap-5">
      <PlacePlan
        chosen={place}
        isSouthpaw={isSouthpaw}
        serves={(one) => serves(one.azimuth)}
        onChoose={(one) => {
          const { edit } = store.getState();
          edit(placedCamera(documentOf(store.getState()), viewAt(one.azimuth), one.azimuth));
        }}
      />
      <div className="min-w-48 flex-1 space-y-1.5">
        <h2 className="font-semibold">Where the camera stood</h2>
        <p>
          {place
            ? `${place.name[0]!.toUpperCase()}${place.name.slice(1)}.`
            : `${VIEW_GUIDE[view].name}; where exactly is not said.`}
        </p>
        <p className="text-sm text-soft">
          {view === 'above'
            ? 'From above a turn shows as it is.'
            : place && !serves(place.azimuth)
              ? 'From here the turn into this strike does not show; bands show it from behind.'
              : 'From the dark places the turn into this strike can be read off marks on hips and shoulders.'}
        </p>
      </div>
    </section>
  );
}
