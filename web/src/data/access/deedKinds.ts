/** What is written down of who did what. */
import { z } from 'zod';

/** As it reads after a name. */
export const DEEDS = {
  'added-film': 'added a film',
  marked: 'marked strikes',
  accepted: 'accepted a leak',
  dismissed: 'called a leak wrong',
  postponed: 'put a leak off',
  reopened: 'took a leak up again',
  closed: 'closed a leak',
  talked: 'talked over a strike',
  'gave-work': 'gave work against what Sinew advised',
  'set-gate': 'set the speed gate by hand',
  'ended-hurt': 'wrote that it does not hurt any more',
  'changed-library': 'changed the library',
  'changed-student': 'changed a student',
  'recorded-consent': 'recorded a consent',
  'withdrew-consent': 'withdrew a consent',
  'allowed-sharing': 'recorded that films may be sent home',
  'ended-sharing': 'recorded that no film is sent home any more',
  'sent-home': 'made something to send home',
  'made-link': 'made a link to a student’s lesson',
  'ended-links': 'withdrew the links to a student’s lesson',
  'put-away': 'put something away',
  'brought-back': 'brought something back',
  'changed-settings': 'changed the gym’s settings',
  'went-back': 'went back to a backup',
  'opened-gym': 'opened the gym to its network',
  'shut-gym': 'shut the gym to its network',
  'changed-people': 'changed who comes in',
  'paired-phone': 'paired a phone',
} as const;

export type DeedKind = keyof typeof DEEDS;

export const deedKind = z.enum(Object.keys(DEEDS) as [DeedKind, ...DeedKind[]]);
