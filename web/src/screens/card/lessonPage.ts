/**
 * What a student takes home as one file: their card as a page that needs nothing but a browser, with the
 * picture, the review, boxes to tick that it remembers, and the next date. Nothing in it asks a network.
 */
import { shortDay, type Day } from '@sinew/core/foundation/calendar/day';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { CardCue, CardOf } from '@/data/finding/card';
import type { Given } from '@/data/work/work';
import { STANCE_NAMES } from '@/screens/work/stanceNames';
import { escaped } from '@/ui/plainPage';
import type { Piece } from '@/video/review/plan';
import { CHANGE_WORDS } from './changeWords';

export interface Lesson {
  readonly gym: string;
  readonly student: string;
  readonly madeOn: Day;
  readonly card: CardOf;
  /** JPEG, base64; null where there is none. */
  readonly picture: string | null;
  /** MP4, base64, and what is said in it; null where there is none. */
  readonly review: { readonly film: string; readonly pieces: readonly Piece[] } | null;
  /** iCalendar; null without a date to come. */
  readonly calendar: string | null;
}

export function lessonPage(lesson: Lesson): string {
  const { gym, student, madeOn, card, picture, review, calendar } = lesson;
  const [first, ...others] = card.cues;
  const still = picture && `data:image/jpeg;base64,${picture}`;
  const media = [
    review &&
      `<video controls playsinline preload="metadata"${still ? ` poster="${still}"` : ''}></video>`,
    still && `<img src="${still}" alt="The strike, on the frame that shows it">`,
  ];
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<meta http-equiv="content-security-policy" content="default-src 'none'; img-src data:; media-src blob:; style-src 'unsafe-inline'; script-src 'unsafe-inline'">
<title>${escaped(student)}, ${escaped(gym)}</title>
<style>${STYLE}</style>
</head>
<body>
<header><h1>${escaped(student)}</h1><span>${escaped(gym)}, ${shortDay(madeOn)} ${madeOn.slice(0, 4)}</span></header>
<main>
${first ? cueOn(first, media.filter(Boolean).join('\n')) : '<p>No cue yet.</p>'}
${others.map((one) => cueOn(one, '')).join('\n')}
${card.other.length > 0 ? `<section><h2>Also</h2>${card.other.map((one) => workOn(one, [])).join('\n')}</section>` : ''}
${card.heed.map((one) => `<p class="heed">${escaped(one)}</p>`).join('\n')}
${calendar ? `<p><a download="film again.ics" href="${dataOf('text/calendar', calendar)}">Put the next date into my calendar</a></p>` : ''}
<p class="soft">Wrap your hands, wear gloves on the bag, warm up, start light, add power last. Pain, numbness or dizziness: stop, and see a clinician. ± says within what range the true value lies in 95 of 100 cases.</p>
<p class="soft">This page is a file of yours: the boxes are remembered in this browser only. Show it to your coach.</p>
</main>
${review ? `<script type="text/plain" id="film">${review.film}</script>\n<script type="application/json" id="said">${jsonOf(review.pieces)}</script>` : ''}
<script>${SCRIPT}</script>
</body>
</html>
`;
}

/** JSON that may stand in a page: nothing in it can end the script it is in. */
const jsonOf = (value: unknown) => JSON.stringify(value).replaceAll('<', '\\u003c');

const dataOf = (type: string, text: string) =>
  `data:${type};charset=utf-8,${encodeURIComponent(text)}`.replaceAll("'", '%27');

function cueOn({ cue, number, work, days, caution, isInjury }: CardCue, media: string): string {
  const said = number?.verdict && CHANGE_WORDS[number.verdict];
  const why = number?.why && ` (not comparable: ${number.why})`;
  return `<section>
<h2>${escaped(techniqueById(cue.technique).name)}</h2>
<p class="cue">${escaped(cue.text)}</p>
${media}
<p>${escaped(cue.evidence)}</p>
${
  number
    ? `<dl><dt>${escaped(number.name)}</dt><dd>then <b>${escaped(number.then)}</b></dd><dd>now <b>${escaped(number.now ?? 'not filmed again')}</b>${escaped(said ? `, ${said}` : '')}${escaped(why ?? '')}</dd></dl>`
    : ''
}
${work.map((one) => workOn(one, days)).join('\n')}
${work.length === 0 && cue.drill ? `<p>${escaped(cue.drill)}. Slow until it is right.</p>` : ''}
${
  isInjury || caution
    ? `<p class="heed">${isInjury ? '<b>No power until your coach says so. </b>' : ''}${escaped(caution ?? '')}</p>`
    : ''
}
</section>`;
}

function workOn(work: Given, days: readonly Day[]): string {
  const what = [work.dose, STANCE_NAMES[work.stances], INTENT_NAMES[work.intent]].filter(Boolean);
  const box = (day: Day) =>
    `<label><input type="checkbox" data-box="${escaped(`${work.id} ${day}`)}">${shortDay(day)}</label>`;
  return `<div class="work"><p><b>${escaped(work.name)}</b>: ${escaped(what.join(', '))}.</p>
${days.length > 0 ? `<fieldset><legend class="soft">Tick the days you have worked</legend>${days.map(box).join('')}</fieldset>` : ''}
${work.cautions.map((one) => `<p>${escaped(one)}</p>`).join('')}
<p class="soft">${escaped(work.gate)} To be filmed again: ${shortDay(work.nextCheck)}.</p></div>`;
}

const STYLE = `
:root { color-scheme: light dark; --ink: #15130f; --soft: #6d6557; --paper: #f7f2e9; --now: #b92d17; --rule: #d9cfbb }
@media (prefers-color-scheme: dark) { :root { --ink: #f2ece0; --soft: #b4aa98; --paper: #1b1916; --now: #f0795f; --rule: #4a443a } }
body { margin: 0 auto; max-width: 40rem; padding: 1rem; background: var(--paper); color: var(--ink); font: 1.0625rem/1.45 system-ui, sans-serif; overflow-wrap: anywhere }
header { display: flex; flex-wrap: wrap; justify-content: space-between; gap: 0 1rem; border-bottom: 2px solid var(--ink); padding-bottom: .5rem }
h1 { font-size: 1.0625rem; margin: 0 } header span, h2, .soft { color: var(--soft) } h2 { font-size: 1rem; font-weight: 400; margin: 1.25rem 0 0 }
.cue { font: 2.1rem/1.1 Georgia, serif; margin: .3rem 0 1rem }
img, video { display: block; width: 100%; height: auto; margin: .75rem 0; background: var(--rule) }
section { border-bottom: 1px solid var(--rule); padding-bottom: 1rem } dl { margin: 0 } dt { font-weight: 600 } dd { margin: 0 }
.heed { border-left: 4px solid var(--now); padding-left: .75rem }
fieldset { border: 0; margin: 0; padding: 0; display: flex; flex-wrap: wrap; gap: .25rem 1rem } legend { padding: 0; margin-bottom: .25rem }
label { display: flex; align-items: center; gap: .5rem; min-height: 44px } input { width: 24px; height: 24px; accent-color: var(--now) }
a { color: inherit; display: inline-block; padding: .6rem 0; font-weight: 600 }
`;

/**
 * Remembers which boxes are ticked; where the browser keeps nothing they are for this look only. The film
 * is given to the player as a file of its own: an address of data is not played everywhere.
 */
const SCRIPT = `
const film = document.getElementById('film');
if (film) {
  const bytes = Uint8Array.from(atob(film.textContent), (letter) => letter.charCodeAt(0));
  const player = document.querySelector('video');
  player.src = URL.createObjectURL(new Blob([bytes], { type: 'video/mp4' }));
  const said = player.addTextTrack('subtitles', 'Words', 'en');
  for (const one of JSON.parse(document.getElementById('said').textContent)) {
    said.addCue(new VTTCue(one.from, one.to, one.words));
  }
}
for (const box of document.querySelectorAll('[data-box]')) {
  const key = 'sinew ' + box.dataset.box;
  try { box.checked = localStorage.getItem(key) === '1'; } catch {}
  box.addEventListener('change', () => {
    try { box.checked ? localStorage.setItem(key, '1') : localStorage.removeItem(key); } catch {}
  });
}
`;
