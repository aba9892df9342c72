/** The chain model, off the page: what faults cost, and what would be if. */
import { expose } from 'comlink';
import { costedFindings } from '@sinew/core/analysis/analyze';
import { fit } from '@sinew/core/judge/simulate/fit';
import { observe } from '@sinew/core/judge/simulate/observe';
import { simulateStrike, standing, type Model } from '@sinew/core/judge/simulate/strike';
import { changed, worthOfLinks, type WhatIf } from '@sinew/core/judge/simulate/whatIf';

const chainModel = {
  costedFindings,
  observe,
  fit,
  worthOfLinks,
  /** Of a fitted strike: what is changed has to come to the target that it met. */
  whatIf: (fitted: Model, asked: WhatIf) =>
    simulateStrike(changed(standing(fitted, simulateStrike(fitted)), asked)),
};

export type ChainModel = typeof chainModel;

expose(chainModel);
