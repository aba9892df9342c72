/** Every column that holds JSON, by table, and what it may hold. */
import { z } from 'zod';
import {
  calibrationSchema,
  correctionSchema,
  lensSchema,
  lineSchema,
  purposeSchema,
  rectangleSchema,
  scaleSchema,
  spanSchema,
  strikeSchema,
} from '@sinew/core/analysis/clipDocument';
import { drawingSchema, MOST_DRAWINGS } from '@sinew/core/analysis/drawing';
import { INTENTS } from '@sinew/core/foundation/drill/intent';
import { costSchema, judgedBySchema } from '@sinew/core/judge/fault/findingSchema';
import { editsSchema } from '@sinew/core/judge/library/edits';
import { schoolSchema } from '@sinew/core/judge/school/schools';
import { bandTurnsSchema } from '@sinew/core/observe/band/bandTurns';
import { surveySchema } from '@sinew/core/observe/take/survey';
import { fieldTestSchema } from '@sinew/core/train/progress/fieldTest';
import { sessionSchema } from '@sinew/core/train/work/session';
import { foundSchema, personSchema } from '../../api/job';
import { mannerSchema, USUAL_MANNER } from '../../manner/manner';
import { jsonColumn } from './jsonColumn';

const name = z.string().trim().min(1).max(60);

/** What a gym has said of itself, beside its name. */
export const gymSettingsSchema = z.object({
  /** Lowest first. */
  grades: z.array(name).max(30),
  /** The grade from which an intent is allowed. */
  from: z.partialRecord(z.enum(INTENTS), name),
  /** The gym's own sessions, and those that come with Sinew as it has changed them. */
  sessions: z.array(sessionSchema).max(60).default([]),
  manner: mannerSchema.default(USUAL_MANNER),
});

export const COLUMNS = {
  gym: {
    library: jsonColumn('the gym’s library', editsSchema),
    settings: jsonColumn('the gym’s settings', gymSettingsSchema),
  },
  student: { school: jsonColumn('a student’s school', schoolSchema) },
  clip: {
    scale: jsonColumn('the scale of a clip', scaleSchema),
    target: jsonColumn('the target of a clip', lineSchema),
    rectangle: jsonColumn('the rectangle of a clip', rectangleSchema),
    lens: jsonColumn('the lens of a clip', lensSchema),
    refused: jsonColumn('what is no strike in a clip', z.array(spanSchema)),
    corrections: jsonColumn('the corrections of a clip', z.array(correctionSchema)),
    drawings: jsonColumn('the drawings of a clip', z.array(drawingSchema).max(MOST_DRAWINGS)),
    purpose: jsonColumn('what a clip was filmed for', purposeSchema),
  },
  strike: {
    school: jsonColumn('the school of a strike', schoolSchema),
    audit: jsonColumn('what the eye said of a strike', strikeSchema.shape.audit.unwrap()),
    looks: jsonColumn('blind looks at a strike', strikeSchema.shape.looks.unwrap()),
  },
  finding: {
    judged_by: jsonColumn('what judged a finding', judgedBySchema),
    judged_as: jsonColumn('the school of a finding', z.array(z.string())),
    cost: jsonColumn('what a finding costs', costSchema.nullable()),
  },
  tracking: {
    person: jsonColumn('whom the body tracker follows', personSchema),
    found: jsonColumn('whom the body tracker found', foundSchema),
  },
  survey: { survey: jsonColumn('what was found in a film', surveySchema) },
  band_turn: { turns: jsonColumn('what worn bands told', bandTurnsSchema) },
  camera_setup: { calibration: jsonColumn('a camera set-up', calibrationSchema) },
  measured: {
    links: jsonColumn(
      'what each link does',
      z.record(z.string(), z.enum(['drives', 'neutral', 'drags'])),
    ),
    /** Faults by name in the catalogue; what can't be told is in neither list. */
    shows: jsonColumn(
      'what a strike shows',
      z.object({ found: z.array(z.string()), clear: z.array(z.string()) }),
    ),
  },
  field_test: { given: jsonColumn('a test', fieldTestSchema) },
  repeat_marking: { marks: jsonColumn('a repeat marking', strikeSchema.shape.marks) },
} as const;
