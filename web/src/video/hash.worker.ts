/** SHA-256 of a film, read piece by piece: it may be larger than a phone's memory. */
import { expose } from 'comlink';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

const PIECE = 4 * 1024 * 1024;

async function hashOf(file: Blob): Promise<string> {
  const hash = sha256.create();
  for (let at = 0; at < file.size; at += PIECE) {
    hash.update(new Uint8Array(await file.slice(at, at + PIECE).arrayBuffer()));
  }
  return bytesToHex(hash.digest());
}

const worker = { hashOf };
export type HashWorker = typeof worker;
expose(worker);
