/**
 * What a gym has made its own of the catalogue: limits, cues, drills, its schools, faults of its own.
 * The catalogue as it comes is never changed; taking an edit away brings it back.
 */
import { z } from 'zod';
import { CATALOGUE } from '../fault/faults';
import {
  catalogueSchema,
  faultSchema,
  isOfReading,
  limitId,
  type Catalogue,
  type Fault,
  type ReadingLimit,
} from '../fault/schema';
import { firstEditsSchema, fromFirst } from './firstVersion';
import { refused } from '../../foundation/problem/problem';
import { drillSchema } from '../../foundation/drill/drills';
import { quantity } from '../../foundation/reading/say';
import { unitOf } from '../../measure/measures/units';
import { choiceName, SCHOOLS, schoolSchema, type School } from '../school/schools';

const faultEditSchema = z
  .object({
    /** By `limitId`. */
    limits: z.record(z.string(), z.number().finite()),
    cue: faultSchema.shape.cue,
    drill: z.string(),
    /** Not judged in this gym. */
    isOff: z.boolean(),
  })
  .partial();

export const editsSchema = z.object({
  faults: z.record(z.string(), faultEditSchema),
  /** The gym's own faults. */
  own: z.array(faultSchema),
  drills: z.record(z.string(), drillSchema.pick({ name: true, dose: true }).partial()),
  ownDrills: z.array(drillSchema),
  school: schoolSchema,
});

export type Edits = z.infer<typeof editsSchema>;

/** What strikes are judged by in a gym. */
export interface Library {
  readonly catalogue: Catalogue;
  readonly school: School;
}

export const NO_EDITS: Edits = { faults: {}, own: [], drills: {}, ownDrills: [], school: {} };

/** Of the file below; version 1 named limits by their place. */
export const LIBRARY_VERSION = 2;

/** A file that carries a library from one gym to another. */
export const libraryFileSchema = z.union([
  z.object({
    format: z.literal('sinew-library'),
    version: z.literal(LIBRARY_VERSION),
    edits: editsSchema,
  }),
  z
    .object({ format: z.literal('sinew-library'), version: z.literal(1), edits: firstEditsSchema })
    .transform(({ format, edits }) => ({
      format,
      version: LIBRARY_VERSION,
      edits: editsSchema.parse(fromFirst(edits)),
    })),
]);

/**
 * The catalogue as a gym has it. Edits that name faults or drills which no longer exist are passed
 * over: a newer Sinew must open an older gym.
 *
 * @throws ZodError when the gym's own faults do not fit
 */
export function edited(edits: Edits, base: Catalogue = CATALOGUE): Catalogue {
  const drills = new Set([...base.drills, ...edits.ownDrills].map(({ id }) => id));
  return catalogueSchema.parse({
    faults: [
      ...base.faults
        .map((fault) => faultEdited(fault, edits.faults[fault.id], drills))
        .filter(({ id }) => !edits.faults[id]?.isOff),
      ...edits.own,
    ],
    drills: [
      ...base.drills.map((drill) => ({ ...drill, ...edits.drills[drill.id] })),
      ...edits.ownDrills,
    ],
  });
}

function faultEdited(
  fault: Fault,
  edit: Edits['faults'][string] | undefined,
  drills: ReadonlySet<string>,
): Fault {
  if (!edit) return fault;
  return {
    ...fault,
    ...(edit.cue !== undefined && { cue: edit.cue }),
    ...(edit.drill !== undefined && drills.has(edit.drill) && { drill: edit.drill }),
    cases: fault.cases.map((one) => ({
      ...one,
      // A gym's own words are said of every way of the leak.
      cue: edit.cue === undefined ? one.cue : undefined,
      limits: one.limits.map((limit) => {
        const value = edit.limits?.[limitId(one, limit)];
        return value === undefined || !isOfReading(limit) ? limit : { ...limit, value };
      }),
    })),
  };
}

/** @throws ZodError when the gym's own faults do not fit */
export function libraryFrom(edits: Edits): Library {
  return { catalogue: edited(edits), school: edits.school };
}

/** One thing that a coach changes. `null` brings back what comes with Sinew. */
export const changeSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('limit'),
    fault: z.string(),
    /** See `limitId`. */
    limit: z.string(),
    value: z.number().finite().nullable(),
  }),
  z.object({ kind: z.literal('cue'), fault: z.string(), text: faultSchema.shape.cue.nullable() }),
  z.object({ kind: z.literal('drill-of'), fault: z.string(), drill: z.string().nullable() }),
  z.object({ kind: z.literal('off'), fault: z.string(), isOff: z.boolean() }),
  z.object({ kind: z.literal('dose'), drill: z.string(), dose: drillSchema.shape.dose.nullable() }),
  z.object({ kind: z.literal('own-drill'), drill: drillSchema }),
  z.object({ kind: z.literal('remove-own-drill'), drill: z.string() }),
  z.object({ kind: z.literal('own'), fault: faultSchema }),
  z.object({ kind: z.literal('remove-own'), fault: z.string() }),
  z.object({ kind: z.literal('reset'), fault: z.string() }),
  z.object({ kind: z.literal('school'), key: z.string(), choice: z.string().nullable() }),
  z.object({ kind: z.literal('all'), edits: editsSchema }),
]);

export type LibraryChange = z.infer<typeof changeSchema>;

/** What of the edits a change is about: whoever changes it has seen this. */
export function touchedBy(edits: Edits, change: LibraryChange): unknown {
  switch (change.kind) {
    case 'limit':
    case 'cue':
    case 'drill-of':
    case 'off':
    case 'reset':
      return edits.faults[change.fault] ?? null;
    case 'own':
      return edits.own.find(({ id }) => id === change.fault.id) ?? null;
    case 'remove-own':
      return edits.own.find(({ id }) => id === change.fault) ?? null;
    case 'dose':
      return edits.drills[change.drill] ?? null;
    case 'own-drill':
      return edits.ownDrills.find(({ id }) => id === change.drill.id) ?? null;
    case 'remove-own-drill':
      return edits.ownDrills.find(({ id }) => id === change.drill) ?? null;
    case 'school':
      return edits.school[change.key] ?? null;
    case 'all':
      return null;
  }
}

/** A change, and the words for the history: what it was about, what it was before and after. */
export interface Changed {
  readonly edits: Edits;
  readonly what: string;
  readonly before: string;
  readonly after: string;
}

/**
 * @throws Problem when there is no such thing to change; ZodError when it does not fit
 */
export function withChange(edits: Edits, change: LibraryChange): Changed {
  const changed = applied(edits, change);
  const { drills } = edited(changed.edits);
  for (const { drill } of Object.values(changed.edits.faults)) {
    if (drill !== undefined && !drills.some(({ id }) => id === drill)) {
      throw refused(`There is no drill “${drill}”.`);
    }
  }
  return changed;
}

/** An id is made of a name's letters: what differs in a number alone has the same. */
const namedAlike = (name: string, other: string) =>
  refused(`“${name}” has the letters of “${other}”.`, 'Give it another name.');

function applied(edits: Edits, change: LibraryChange): Changed {
  const now = edited({
    ...edits,
    faults: mapped(edits.faults, (one) => ({ ...one, isOff: false })),
  });
  const faultById = (id: string): Fault => {
    const found = now.faults.find((fault) => fault.id === id);
    if (!found) throw refused(`There is no leak “${id}” in the library.`);
    return found;
  };
  const usual = (id: string) => CATALOGUE.faults.find((fault) => fault.id === id);
  const edit = (id: string, to: Partial<Edits['faults'][string]>): Edits => {
    const own = edits.own.find((fault) => fault.id === id);
    if (own) throw refused('This leak is the gym’s own.', 'Change it as a whole.');
    const { [id]: before, ...rest } = edits.faults;
    const after = without({ ...before, ...to });
    const faults = Object.keys(after).length > 0 ? { ...rest, [id]: after } : rest;
    return { ...edits, faults };
  };
  switch (change.kind) {
    case 'limit': {
      const fault = faultById(change.fault);
      const limit = limitOf(fault, change.limit);
      if (!limit) throw refused('There is no such limit.');
      const { [change.limit]: _, ...others } = edits.faults[fault.id]?.limits ?? {};
      const limits = change.value === null ? others : { ...others, [change.limit]: change.value };
      const next = edit(fault.id, { limits });
      const then = edited(next).faults.find(({ id }) => id === fault.id);
      const after = then && limitOf(then, change.limit);
      const say = (value: number) => quantity(value, unitOf(limit.reading));
      return {
        edits: next,
        what: `${fault.name}: limit`,
        before: say(limit.value),
        after: say(after?.value ?? change.value ?? limit.value),
      };
    }
    case 'cue': {
      const fault = faultById(change.fault);
      const text = change.text ?? usual(fault.id)?.cue ?? fault.cue;
      return {
        edits: edit(fault.id, { cue: change.text ?? undefined }),
        what: `${fault.name}: cue`,
        before: fault.cue,
        after: text,
      };
    }
    case 'drill-of': {
      const fault = faultById(change.fault);
      const name = (id: string | undefined) => now.drills.find((one) => one.id === id)?.name ?? '';
      return {
        edits: edit(fault.id, { drill: change.drill ?? undefined }),
        what: `${fault.name}: drill`,
        before: name(fault.drill),
        after: name(change.drill ?? usual(fault.id)?.drill),
      };
    }
    case 'off': {
      const fault = faultById(change.fault);
      const words = (isOff: boolean) => (isOff ? 'not judged' : 'judged');
      return {
        edits: edit(fault.id, { isOff: change.isOff || undefined }),
        what: fault.name,
        before: words(edits.faults[fault.id]?.isOff === true),
        after: words(change.isOff),
      };
    }
    case 'dose': {
      const drill = now.drills.find(({ id }) => id === change.drill);
      if (!drill) throw refused(`There is no drill “${change.drill}”.`);
      const { [drill.id]: before, ...rest } = edits.drills;
      const after = without({ ...before, dose: change.dose ?? undefined });
      const drills = Object.keys(after).length > 0 ? { ...rest, [drill.id]: after } : rest;
      const base = [...CATALOGUE.drills, ...edits.ownDrills].find(({ id }) => id === drill.id);
      return {
        edits: { ...edits, drills },
        what: `${drill.name}: dose`,
        before: drill.dose,
        after: change.dose ?? base?.dose ?? drill.dose,
      };
    }
    case 'own-drill': {
      const { drill } = change;
      if (CATALOGUE.drills.some(({ id, name }) => id === drill.id || name === drill.name)) {
        throw refused(`“${drill.name}” is a drill that comes with Sinew.`, 'Give it another name.');
      }
      const before = edits.ownDrills.find(({ id }) => id === drill.id);
      if (before && before.name !== drill.name) throw namedAlike(drill.name, before.name);
      const others = edits.ownDrills.filter((one) => one !== before);
      return {
        edits: { ...edits, ownDrills: [...others, drill] },
        what: `${drill.name}: the gym’s own drill`,
        before: before ? 'as it was' : 'none',
        after: before ? 'changed' : 'added',
      };
    }
    case 'remove-own-drill': {
      const drill = edits.ownDrills.find(({ id }) => id === change.drill);
      if (!drill) throw refused('There is no such drill of the gym’s own.');
      const users = now.faults.filter((fault) => fault.drill === drill.id);
      if (users.length > 0) {
        const names = users.map(({ name }) => name).join(', ');
        throw refused(`It mends: ${names}.`, 'Give these another drill first.');
      }
      const { [drill.id]: _, ...drills } = edits.drills;
      const ownDrills = edits.ownDrills.filter((one) => one !== drill);
      return {
        edits: { ...edits, drills, ownDrills },
        what: `${drill.name}: the gym’s own drill`,
        before: 'there',
        after: 'removed',
      };
    }
    case 'own': {
      if (usual(change.fault.id)) {
        throw refused(`“${change.fault.id}” is the name of a leak that comes with Sinew.`);
      }
      const before = edits.own.find(({ id }) => id === change.fault.id);
      if (before && before.name !== change.fault.name) {
        throw namedAlike(change.fault.name, before.name);
      }
      const own = [...edits.own.filter(({ id }) => id !== change.fault.id), change.fault];
      return {
        edits: { ...edits, own },
        what: `${change.fault.name}: the gym’s own leak`,
        before: before ? 'as it was' : 'none',
        after: before ? 'changed' : 'added',
      };
    }
    case 'remove-own': {
      const fault = edits.own.find(({ id }) => id === change.fault);
      if (!fault) throw refused('There is no such leak of the gym’s own.');
      return {
        edits: { ...edits, own: edits.own.filter((one) => one !== fault) },
        what: `${fault.name}: the gym’s own leak`,
        before: 'there',
        after: 'removed',
      };
    }
    case 'reset': {
      const fault = faultById(change.fault);
      const { [fault.id]: _, ...faults } = edits.faults;
      return {
        edits: { ...edits, faults },
        what: fault.name,
        before: 'changed',
        after: 'as it comes',
      };
    }
    case 'school': {
      const school = SCHOOLS[change.key];
      if (!school) throw refused(`There is no school setting “${change.key}”.`);
      const { [change.key]: before, ...rest } = edits.school;
      const chosen = change.choice === null ? rest : { ...rest, [change.key]: change.choice };
      return {
        edits: { ...edits, school: schoolSchema.parse(chosen) },
        what: school.name,
        before: choiceName(change.key, before ?? school.usual),
        after: choiceName(change.key, change.choice ?? school.usual),
      };
    }
    case 'all':
      return {
        edits: change.edits,
        what: 'The whole library',
        before: 'as it was',
        after: 'taken from a file',
      };
  }
}

/** A limit by its name within a fault. */
export function limitOf({ cases }: Fault, id: string): ReadingLimit | undefined {
  return cases
    .flatMap((one) => one.limits.filter((limit) => limitId(one, limit) === id))
    .find(isOfReading);
}

/** Without what is undefined or empty. */
function without<T extends object>(all: T): Partial<T> {
  return Object.fromEntries(
    Object.entries(all).filter(
      ([, value]) =>
        value !== undefined && !(typeof value === 'object' && Object.keys(value).length === 0),
    ),
  ) as Partial<T>;
}

function mapped<T>(all: Readonly<Record<string, T>>, to: (one: T) => T): Record<string, T> {
  return Object.fromEntries(Object.entries(all).map(([key, one]) => [key, to(one)]));
}
