/** The chain model, off the page: what leaks cost, and what would be if. */
import { expose } from 'comlink';
import { withCosts } from '@sinew/core/judge/cost/estimate';
import { fit } from '@sinew/core/judge/simulate/fit';
import { observe } from '@sinew/core/judge/simulate/observe';
import { thrown } from '@sinew/core/judge/simulate/strike';
import { changed } from '@sinew/core/judge/simulate/whatIf';

const chainModel = {
  withCosts,
  observe,
  fit,
  whatIf: (...asked: Parameters<typeof changed>) => thrown(changed(...asked)),
};

export type ChainModel = typeof chainModel;

expose(chainModel);
