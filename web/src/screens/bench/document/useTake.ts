import { useMemo } from 'react';
import type { Hit } from '@sinew/core/observe/sound/onsets';
import { seenTime } from '@sinew/core/observe/take/strikes';
import { cameraDistance } from '@sinew/core/analysis/clipCalibration';
import { strikesIn, takeOf, type Take } from '@sinew/core/observe/take/survey';
import { documentOf, useBench } from './benchStore';
import { isOpen, proposalsOf, type Proposal } from '@sinew/core/analysis/strikesFound';

/** What going through the film has told, over real time; null until it is done. */
export function useTake(): Take | null {
  const survey = useBench(({ survey: state }) => (state.kind === 'done' ? state.survey : null));
  const fileTimes = useBench((state) => state.clip.frameTimes);
  const captureRate = useBench((state) => documentOf(state).captureRate);
  return useMemo(
    () => survey && takeOf(survey, fileTimes, captureRate),
    [survey, fileTimes, captureRate],
  );
}

/** Metres from the camera to where the strikes land, where a rectangle on the floor tells. */
function useCameraDistance(): number | null {
  const clip = useBench((state) => state.clip);
  const { view, azimuth, scale, target, rectangle, lens } = useBench(documentOf);
  return useMemo(
    () => cameraDistance({ view, azimuth, scale, target, rectangle, lens }, clip),
    [view, azimuth, scale, target, rectangle, lens, clip],
  );
}

/** Hits at the instants at which the picture shows them: sound takes its time to the microphone. */
export function useHits(): readonly Hit[] {
  const take = useTake();
  const distance = useCameraDistance();
  return useMemo(
    () => take?.hits.map((hit) => ({ ...hit, ...seenTime(hit, distance) })) ?? [],
    [take, distance],
  );
}

/** All strikes found in the take. */
export function useProposals(): readonly Proposal[] {
  const take = useTake();
  const distance = useCameraDistance();
  return useMemo(
    () => (take ? proposalsOf(strikesIn(take, distance), take.activity.times) : []),
    [take, distance],
  );
}

/** Those that the coach has not decided on yet. */
export function useOpenProposals(): readonly Proposal[] {
  const all = useProposals();
  const document = useBench(documentOf);
  return useMemo(() => all.filter((one) => isOpen(one, document, all.length)), [all, document]);
}
