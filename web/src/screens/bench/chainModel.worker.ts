/** The chain model, off the page: what leaks cost, and what would be if. */
import { expose } from 'comlink';
import { withCosts } from '@sinew/core/cost/estimate';
import { fit } from '@sinew/core/simulate/fit';
import { observe } from '@sinew/core/simulate/observe';
import { thrown } from '@sinew/core/simulate/strike';
import { changed } from '@sinew/core/simulate/whatIf';

const chainModel = {
  withCosts,
  observe,
  fit,
  whatIf: (...asked: Parameters<typeof changed>) => thrown(changed(...asked)),
};

export type ChainModel = typeof chainModel;

expose(chainModel);
