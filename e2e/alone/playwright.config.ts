import { inChromium } from '../support/config';

// What is heard and shown again while it is filmed goes by the clock: no other test beside it.
export default inChromium('.', { main: [] });
