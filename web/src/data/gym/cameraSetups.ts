/** How cameras stood, by name, so that a set-up measured once serves every clip it took. */
import { nanoid } from 'nanoid';
import { type SavedCalibration } from '@sinew/core/analysis/clipDocument';
import { now, stamps, type Db } from '../database/db';
import { gymForWriting } from './gym';
import { COLUMNS } from '../database/columns';

export interface CameraSetup {
  readonly id: string;
  readonly name: string;
  /** Pixels of the pictures it was set in. */
  readonly width: number;
  readonly height: number;
  readonly calibration: SavedCalibration;
  readonly updatedAt: string;
}

export async function cameraSetups(db: Db): Promise<CameraSetup[]> {
  const rows = await db.selectFrom('camera_setup').selectAll().orderBy('name').execute();
  return rows.flatMap((row) => {
    const calibration = COLUMNS.camera_setup.calibration.read(row.calibration);
    const { id, name, width, height, updated_at: updatedAt } = row;
    return calibration ? [{ id, name, width, height, calibration, updatedAt }] : [];
  });
}

/** Keep a set-up under a name; one that has it already is replaced. */
export async function keepCameraSetup(
  db: Db,
  { name, width, height, calibration }: Omit<CameraSetup, 'id' | 'updatedAt'>,
): Promise<void> {
  const gym = await gymForWriting(db);
  const values = {
    width,
    height,
    calibration: COLUMNS.camera_setup.calibration.write(calibration),
  };
  await db
    .insertInto('camera_setup')
    .values({ id: nanoid(), gym_id: gym.id, name, ...values, ...stamps() })
    .onConflict((conflict) =>
      conflict.columns(['gym_id', 'name']).doUpdateSet({ ...values, updated_at: now() }),
    )
    .execute();
}

export async function removeCameraSetup(db: Db, id: string): Promise<void> {
  await db.deleteFrom('camera_setup').where('id', '=', id).execute();
}
