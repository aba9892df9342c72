import { join } from 'node:path';
import { dataFolder } from '../database/dataFolder';
import { ClipFiles } from './clipFiles';
import { FolderShelf } from './folderShelf';
import { s3Place } from './s3Place';
import { S3Shelf } from './s3Shelf';

const shared = globalThis as { sinewS3?: { readonly of: string; readonly shelf: S3Shelf } };

/** The clip files of this server: on its own disk, or in the store that its environment names. */
export function clipFiles(): ClipFiles {
  const shelf = storeHere();
  return shelf ? new ClipFiles(dataFolder(), shelf) : new ClipFiles(dataFolder());
}

/** The store elsewhere, one for all who ask: it keeps its connections. Null where films lie on this machine. */
export function storeHere(): S3Shelf | null {
  const place = s3Place(process.env);
  if (!place) return null;
  const of = JSON.stringify([place, dataFolder()]);
  if (shared.sinewS3?.of !== of) {
    const here = new FolderShelf(join(dataFolder(), 'clips'));
    shared.sinewS3 = { of, shelf: new S3Shelf(place, here) };
  }
  return shared.sinewS3.shelf;
}
