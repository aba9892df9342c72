/** Every change of the tables, in order; what has been released is never edited again. */
import type { Migration } from 'kysely';
import * as firstSlice from './0001-first-slice';
import * as capture from './0002-capture';
import * as tracking from './0003-tracking';
import * as judge from './0004-judge';
import * as work from './0005-work';
import * as birthDates from './0006-birth-dates';
import * as fieldTerms from './0007-field-terms';
import * as measuredSets from './0008-measured-sets';
import * as hurtNotes from './0009-hurt-notes';
import * as wornBands from './0010-worn-bands';
import * as deeds from './0011-deeds';
import * as drawings from './0012-drawings';
import * as sharing from './0013-sharing';
import * as notesOfFilms from './0014-notes-of-films';
import * as places from './0015-places';
import * as whoDecided from './0016-who-decided';
import * as blindLooks from './0017-blind-looks';
import * as tape from './0018-tape';

export const MIGRATIONS: Readonly<Record<string, Migration>> = {
  '0001-first-slice': firstSlice,
  '0002-capture': capture,
  '0003-tracking': tracking,
  '0004-judge': judge,
  '0005-work': work,
  '0006-birth-dates': birthDates,
  '0007-field-terms': fieldTerms,
  '0008-measured-sets': measuredSets,
  '0009-hurt-notes': hurtNotes,
  '0010-worn-bands': wornBands,
  '0011-deeds': deeds,
  '0012-drawings': drawings,
  '0013-sharing': sharing,
  '0014-notes-of-films': notesOfFilms,
  '0015-places': places,
  '0016-who-decided': whoDecided,
  '0017-blind-looks': blindLooks,
  '0018-tape': tape,
};
