import { inChromium } from '../support/config';

export default inChromium('.', { screenshots: [] }, { testMatch: '*.shots.ts' });
