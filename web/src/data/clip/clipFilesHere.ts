import { ClipFiles } from './clipFiles';
import { dataFolder } from '../database/dataFolder';

/** The clip files of this server's data folder. */
export function clipFiles(): ClipFiles {
  return new ClipFiles(dataFolder());
}
