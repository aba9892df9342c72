/**
 * Two coaches in one clip: what each has changed since they began from the same bench is told apart place
 * by place – a mark, a point, a setting – and both are kept where they do not meet.
 */
import type { ClipDocument, StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { landmarkName, type Landmark } from '@sinew/core/foundation/body/landmarks';
import { wordsFor, type EventName } from '@sinew/core/measure/events/events';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';

export interface Merged {
  readonly document: ClipDocument;
  /** What both have changed, and not alike, in words; mine stands there. */
  readonly meets: readonly string[];
}

/** Everything that can be changed by itself: where, as a path, and what is there. */
type Places = ReadonlyMap<string, unknown>;

const GAP = '\u0000';
const path = (...parts: readonly (string | number)[]) => parts.join(GAP);

function placesOf(document: ClipDocument): Places {
  const { placed, corrections, refused, drawings = [], strikes, ...settings } = document;
  const places = new Map<string, unknown>();
  for (const [name, value] of Object.entries(settings)) places.set(path('setting', name), value);
  for (const { landmark, frame, x, y } of placed) {
    places.set(path('point', landmark, frame), { x, y });
  }
  for (const one of corrections) places.set(path('correction', JSON.stringify(one)), one);
  for (const one of refused) places.set(path('refused', JSON.stringify(one)), one);
  for (const one of drawings) places.set(path('drawing', one.id), one);
  for (const strike of strikes) {
    const { id, marks, audit = {}, school = {}, ...rest } = strike;
    places.set(path('strike', id), true);
    for (const [name, value] of Object.entries(rest)) {
      places.set(path('strike', id, 'is', name), value);
    }
    for (const [kind, values] of Object.entries({ marks, audit, school })) {
      for (const [name, value] of Object.entries(values)) {
        places.set(path('strike', id, kind, name), value);
      }
    }
  }
  return places;
}

const isSame = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** @param base what both began from */
export function merge(base: ClipDocument, mine: ClipDocument, theirs: ClipDocument): Merged {
  const [from, one, other] = [placesOf(base), placesOf(mine), placesOf(theirs)];
  /** Of a strike that one has taken away, only that. */
  const placeNamed = (place: string) => {
    const [kind, id = ''] = place.split(GAP);
    const strike = path('strike', id);
    return kind === 'strike' && !(one.has(strike) && other.has(strike)) ? strike : place;
  };
  const merged = new Map(other);
  const meets = new Set<string>();
  for (const place of new Set([...from.keys(), ...one.keys()])) {
    const [was, my, their] = [from.get(place), one.get(place), other.get(place)];
    if (isSame(my, was) && one.has(place) === from.has(place)) continue;
    const isTheirsAsBefore = isSame(their, was) && other.has(place) === from.has(place);
    if (!isTheirsAsBefore && !isSame(my, their)) {
      meets.add(inWords(placeNamed(place), base, mine, theirs));
    }
    if (one.has(place)) merged.set(place, my);
    else merged.delete(place);
  }
  // A strike that one took away and the other worked on is what both have changed.
  for (const { id } of [...mine.strikes, ...theirs.strikes, ...base.strikes]) {
    const parts = [...merged.keys()].filter((key) => key.startsWith(path('strike', id, '')));
    if (merged.has(path('strike', id))) continue;
    for (const key of parts) merged.delete(key);
    const isWorkedOn = (by: Places) =>
      by.has(path('strike', id)) && parts.some((key) => !isSame(by.get(key), from.get(key)));
    if (isWorkedOn(one) || isWorkedOn(other)) {
      meets.add(inWords(path('strike', id), base, mine, theirs));
    }
  }
  return { document: documentFrom(merged, mine, theirs), meets: [...meets] };
}

function documentFrom(places: Places, mine: ClipDocument, theirs: ClipDocument): ClipDocument {
  const all = [...places].map(([key, value]) => ({ parts: key.split(GAP), value }));
  const under = (kind: string) => all.filter(({ parts }) => parts[0] === kind);
  const ids = [...theirs.strikes, ...mine.strikes].map(({ id }) => id);
  const strikes = [...new Set(ids)].filter((id) => places.has(path('strike', id)));
  const drawings = under('drawing').map(({ value }) => value);
  return {
    ...Object.fromEntries(under('setting').map(({ parts, value }) => [parts[1], value])),
    placed: under('point').map(({ parts: [, landmark, frame], value }) => ({
      landmark,
      frame: Number(frame),
      ...(value as object),
    })),
    corrections: under('correction').map(({ value }) => value),
    refused: under('refused').map(({ value }) => value),
    strikes: strikes.map((id) => strikeFrom(id, under('strike'))),
    ...(drawings.length > 0 && { drawings }),
  } as ClipDocument;
}

function strikeFrom(
  id: string,
  all: readonly { readonly parts: readonly string[]; readonly value: unknown }[],
): StrikeDocument {
  const of = (kind: string) =>
    Object.fromEntries(
      all
        .filter(({ parts }) => parts[1] === id && parts[2] === kind)
        .map(({ parts, value }) => [parts[3]!, value]),
    );
  const [audit, school] = [of('audit'), of('school')];
  return {
    id,
    ...of('is'),
    ...(Object.keys(audit).length > 0 && { audit }),
    ...(Object.keys(school).length > 0 && { school }),
    marks: of('marks'),
  } as StrikeDocument;
}

const SETTINGS: Readonly<Record<string, string>> = {
  view: 'from where it was filmed',
  azimuth: 'where the camera stood',
  captureRate: 'at how many frames a second it was shot',
  purpose: 'what it was filmed for',
  intent: 'how hard it was meant',
  round: 'the round it was filmed in',
  scale: 'the scale',
  target: 'the line to the target',
  rectangle: 'the rectangle',
  lens: 'the bend of the lens',
  note: 'what is noted of the film',
};

/** What a place is called on the bench. */
function inWords(place: string, ...documents: readonly ClipDocument[]): string {
  const [kind, name = '', part, what = ''] = place.split(GAP);
  if (kind === 'setting') return SETTINGS[name] ?? name;
  if (kind === 'point') return `the ${landmarkName(name as Landmark)} on frame ${part}`;
  if (kind === 'drawing') return 'a drawing';
  if (kind !== 'strike') return kind === 'refused' ? 'what is no strike' : 'what is said of points';
  const all = documents.find(({ strikes }) => strikes.some(({ id }) => id === name))?.strikes ?? [];
  const at = all.findIndex(({ id }) => id === name);
  const strike = `strike ${at + 1}`;
  if (part !== 'marks') return strike;
  const technique = techniqueById(all[at]!.technique);
  return `“${wordsFor(what as EventName, technique).name.toLowerCase()}” of ${strike}`;
}
