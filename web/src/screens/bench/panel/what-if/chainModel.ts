import { wrap, type Remote } from 'comlink';
import type { ChainModel } from './chainModel.worker';

let model: Remote<ChainModel> | null = null;

/** The chain model in its worker, started when it is first asked for. */
export function chainModel(): Remote<ChainModel> {
  model ??= wrap<ChainModel>(
    new Worker(new URL('./chainModel.worker.ts', import.meta.url), { type: 'module' }),
  );
  return model;
}
