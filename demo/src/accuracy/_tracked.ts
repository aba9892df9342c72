import { trackedSection } from './trackedTables';
void trackedSection().then((text) => { console.log(text); process.exit(0); });
