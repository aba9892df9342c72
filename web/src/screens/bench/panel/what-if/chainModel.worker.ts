/** The chain model, off the page: what faults cost, and what would be if. */
import { expose } from 'comlink';
import { costedFindings } from '@sinew/core/analysis/analyze';
import { fit } from '@sinew/core/judge/simulate/fit';
import { observe } from '@sinew/core/judge/simulate/observe';
import { simulateStrike } from '@sinew/core/judge/simulate/strike';
import { changed } from '@sinew/core/judge/simulate/whatIf';

const chainModel = {
  costedFindings,
  observe,
  fit,
  whatIf: (...asked: Parameters<typeof changed>) => simulateStrike(changed(...asked)),
};

export type ChainModel = typeof chainModel;

expose(chainModel);
