/** Which model this coach likes, in this browser. */
import { MODELS, type Model } from '../api/models';

const KEY = 'sinew.tracking.model';

export function preferredModel(): Model {
  const kept = typeof localStorage === 'undefined' ? null : localStorage.getItem(KEY);
  return MODELS.find((model) => model === kept) ?? 'standard';
}

export function preferModel(model: Model): void {
  localStorage.setItem(KEY, model);
}
