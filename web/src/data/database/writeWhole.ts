/** A small file written whole or not at all: under another name, flushed, renamed. */
import { open, rename, rm } from 'node:fs/promises';
import { nanoid } from 'nanoid';

export async function writeWhole(path: string, content: string | Uint8Array): Promise<void> {
  const making = `${path}.${nanoid()}`;
  try {
    const file = await open(/* turbopackIgnore: true */ making, 'wx', 0o600);
    try {
      await file.writeFile(content);
      await file.sync();
    } finally {
      await file.close();
    }
    await rename(/* turbopackIgnore: true */ making, path);
  } catch (error) {
    await rm(/* turbopackIgnore: true */ making, { force: true });
    throw error;
  }
}
