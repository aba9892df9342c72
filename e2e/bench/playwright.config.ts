import { inChromium } from '../support/config';

export default inChromium('.', { bench: [] }, { testMatch: '*.bench.ts', timeout: 90_000 });
