/** Other programs' names for the points of the body, and which of ours they most likely mean. */
import { isLandmark, LANDMARKS, type Landmark, type SidedPart } from '../foundation/body/landmarks';

/** A file's own names and what each is to be; names that are not here are left out. */
export type Naming = Readonly<Record<string, Landmark>>;

/** Words and laboratory abbreviations for a part, without its side; common practice, no source. */
const WORDS: readonly (readonly [SidedPart, RegExp])[] = [
  ['Shoulder', /^(shoulder|sho|acr|acromion)$/],
  ['Elbow', /^(elbow|elb|lelb)$/],
  ['Wrist', /^(wrist|wri|wra|wrb)$/],
  ['IndexKnuckle', /^(indexknuckle|index|fin|hand|mcp2|indexfinger)$/],
  ['LittleKnuckle', /^(littleknuckle|little|pinky|mcp5|littlefinger)$/],
  ['Hip', /^(hip|hjc|asi|troch|trochanter)$/],
  ['Knee', /^(knee|kne|kjc)$/],
  ['Ankle', /^(ankle|ank|ajc|mal|malleolus)$/],
  ['Heel', /^(heel|hee|calc|calcaneus)$/],
  ['Toe', /^(toe|bigtoe|footindex|hallux|mt1|mt2)$/],
  ['Ear', /^(ear|head|hd)$/],
];

/** The landmark a name most likely means, or null. */
export function likelyLandmark(name: string): Landmark | null {
  if (isLandmark(name)) return name;
  const plain = name.toLowerCase().replace(/[^a-z0-9]/g, '');
  if (plain === 'nose') return 'nose';
  const sides = [
    ['left', /^left|left$/],
    ['right', /^right|right$/],
    ['left', /^l|l$/],
    ['right', /^r|r$/],
  ] as const;
  for (const [side, pattern] of sides) {
    if (!pattern.test(plain)) continue;
    const rest = plain.replace(pattern, '');
    const found = WORDS.find(([, words]) => words.test(rest));
    if (found) return `${side}${found[0]}`;
  }
  return null;
}

/** The likely meaning of all names of a file; each landmark is given away once, to the first. */
export function likelyNaming(names: readonly string[]): Naming {
  const naming: Record<string, Landmark> = {};
  const given = new Set<Landmark>();
  const exactFirst = [...names.filter(isLandmark), ...names.filter((name) => !isLandmark(name))];
  for (const name of exactFirst) {
    const landmark = likelyLandmark(name);
    if (!landmark || given.has(landmark)) continue;
    naming[name] = landmark;
    given.add(landmark);
  }
  return naming;
}

/** Our own names, for files that use them. */
export const OWN_NAMES: Naming = Object.fromEntries(LANDMARKS.map((name) => [name, name]));
