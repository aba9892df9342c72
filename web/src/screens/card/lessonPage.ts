/**
 * What a student takes home as one file: their card as a page that needs nothing but a browser, with the
 * picture, the review, boxes to tick that it remembers, and the next date. Nothing in it asks a network.
 */
import { type Day } from '@sinew/core/foundation/calendar/day';
import { INTENT_NAMES } from '@sinew/core/foundation/drill/intent';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { SaidPiece } from '@/api/said';
import type { CardCue, CardOf } from '@/data/finding/card';
import type { Given } from '@/data/work/work';
import { inManner, shortDay } from '@/manner/manner';
import { STANCE_NAMES } from '@/screens/work/stanceNames';
import { escaped } from '@/ui/plainPage';
import { CHANGE_WORDS } from './changeWords';

export interface Lesson {
  readonly gym: string;
  readonly student: string;
  readonly madeOn: Day;
  readonly card: CardOf;
  /** Address of a JPEG, or the picture itself as one; null where there is none. */
  readonly picture: string | null;
  /** The film and what is said in it; null where there is none. */
  readonly review: { readonly film: LessonFilm; readonly pieces: readonly SaidPiece[] } | null;
  /** iCalendar; null without a date to come. */
  readonly calendar: string | null;
  /** Where the page comes from, and the ticks go to; null in a file, whose boxes its browser remembers. */
  readonly from: LessonServer | null;
}

/** An MP4 in the page itself, base64, or its address. */
type LessonFilm = { readonly inside: string } | { readonly address: string };

interface LessonServer {
  /** Takes what is ticked. */
  readonly ticksTo: string;
  /** Boxes that are ticked, by their names. */
  readonly ticked: ReadonlySet<string>;
  readonly today: Day;
  /** The last day on which the page is there. */
  readonly endsOn: Day;
  /** Of this one answer, for the script that stands in the page. */
  readonly nonce: string;
}

/** What a box is called: its work and its day. */
export const boxName = (workId: string, day: Day) => `${workId} ${day}`;

export function lessonPage(lesson: Lesson): string {
  const { gym, student, madeOn, card, picture, review, calendar, from } = lesson;
  const [first, ...others] = card.cues;
  const film = review && 'address' in review.film ? ` src="${escaped(review.film.address)}"` : '';
  const poster = picture ? ` poster="${escaped(picture)}"` : '';
  const media = [
    review && `<video controls playsinline preload="metadata"${film}${poster}></video>`,
    picture && `<img src="${escaped(picture)}" alt="The strike, on the frame that shows it">`,
  ];
  const box = boxOf(from);
  const nonce = from ? ` nonce="${from.nonce}"` : '';
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
${from ? '' : ALONE}
<title>${escaped(student)}, ${escaped(gym)}</title>
<style>${STYLE}</style>
</head>
<body${from ? ` data-ticks-to="${escaped(from.ticksTo)}"` : ''}>
<header><h1>${escaped(student)}</h1><span>${escaped(gym)}, ${shortDay(madeOn)} ${madeOn.slice(0, 4)}</span></header>
<main>
${first ? cueOn(first, media.filter(Boolean).join('\n'), box) : '<p>No cue yet.</p>'}
${others.map((one) => cueOn(one, '', box)).join('\n')}
${card.other.length > 0 ? `<section><h2>Also</h2>${card.other.map((one) => workOn(one, [], box)).join('\n')}</section>` : ''}
${card.heed.map((one) => `<p class="heed">${escaped(one)}</p>`).join('\n')}
${calendar ? `<p><a download="film again.ics" href="${dataOf('text/calendar', calendar)}">Put the next date into my calendar</a></p>` : ''}
<p class="soft">Wrap your hands, wear gloves on the bag, warm up, start light, add power last. Pain, numbness or dizziness: stop, and see a clinician. ± says within what range the true value lies in 95 of 100 cases.</p>
<p class="soft">${from ? `Your coach sees what you tick. This page is there until ${shortDay(from.endsOn)}; keep its address to yourself.` : 'This page is a file of yours: the boxes are remembered in this browser only. Show it to your coach.'}</p>
</main>
${review && 'inside' in review.film ? `<script type="text/plain" id="film">${review.film.inside}</script>` : ''}
${review ? `<script type="application/json" id="said">${jsonOf(review.pieces)}</script>` : ''}
<script${nonce}>${SCRIPT}</script>
</body>
</html>
`;
}

/** A file on its own asks nobody for anything; what a server sends has a policy of the server's. */
const ALONE = `<meta http-equiv="content-security-policy" content="default-src 'none'; img-src data:; media-src blob:; style-src 'unsafe-inline'; script-src 'unsafe-inline'">`;

type BoxOf = (workId: string, day: Day) => string;

/** No box of a day to come can be ticked where the coach sees it. */
const boxOf =
  (from: LessonServer | null): BoxOf =>
  (workId, day) => {
    const name = boxName(workId, day);
    const state = `${from?.ticked.has(name) ? ' checked' : ''}${from && day > from.today ? ' disabled' : ''}`;
    return `<label><input type="checkbox" data-box="${escaped(name)}"${state}>${shortDay(day)}</label>`;
  };

/** JSON that may stand in a page: nothing in it can end the script it is in. */
const jsonOf = (value: unknown) => JSON.stringify(value).replaceAll('<', '\\u003c');

const dataOf = (type: string, text: string) =>
  `data:${type};charset=utf-8,${encodeURIComponent(text)}`.replaceAll("'", '%27');

function cueOn(
  { cue, number, work, days, caution, isInjury }: CardCue,
  media: string,
  box: BoxOf,
): string {
  const said = number?.verdict && CHANGE_WORDS[number.verdict];
  const why = number?.why && ` (not comparable: ${number.why})`;
  return `<section>
<h2>${escaped(techniqueById(cue.technique).name)}</h2>
<p class="cue">${escaped(cue.text)}</p>
${media}
<p>${escaped(inManner(cue.evidence))}</p>
${
  number
    ? `<dl><dt>${escaped(number.name)}</dt><dd>then <b>${escaped(inManner(number.then))}</b></dd><dd>now <b>${escaped(inManner(number.now ?? 'not filmed again'))}</b>${escaped(said ? `, ${said}` : '')}${escaped(why ?? '')}</dd></dl>`
    : ''
}
${work.map((one) => workOn(one, days, box)).join('\n')}
${work.length === 0 && cue.drill ? `<p>${escaped(cue.drill)}. Slow until it is right.</p>` : ''}
${
  isInjury || caution
    ? `<p class="heed">${isInjury ? '<b>No power until your coach says so. </b>' : ''}${escaped(caution ?? '')}</p>`
    : ''
}
</section>`;
}

function workOn(work: Given, days: readonly Day[], box: BoxOf): string {
  const what = [work.dose, STANCE_NAMES[work.stances], INTENT_NAMES[work.intent]].filter(Boolean);
  return `<div class="work"><p><b>${escaped(work.name)}</b>: ${escaped(what.join(', '))}.</p>
${days.length > 0 ? `<fieldset><legend class="soft">Tick the days you have worked</legend>${days.map((day) => box(work.id, day)).join('')}</fieldset>` : ''}
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
fieldset { border: 0; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(8.5rem, 1fr)); gap: .25rem 1rem } legend { padding: 0; margin-bottom: .25rem }
label { display: flex; align-items: center; gap: .5rem; min-height: 44px } input { width: 24px; height: 24px; accent-color: var(--now) }
a { color: inherit; display: inline-block; padding: .6rem 0; font-weight: 600 }
`;

/**
 * Boxes are sent to where the page comes from, and go back where that fails; in a file on its own they are
 * remembered by the browser, or for this look only where it keeps nothing. A film that stands in the page is
 * given to the player as a file: an address of data is not played everywhere.
 */
const SCRIPT = `
const player = document.querySelector('video');
const film = document.getElementById('film');
if (film) {
  const bytes = Uint8Array.from(atob(film.textContent), (letter) => letter.charCodeAt(0));
  player.src = URL.createObjectURL(new Blob([bytes], { type: 'video/mp4' }));
}
const words = document.getElementById('said');
if (player && words) {
  const said = player.addTextTrack('subtitles', 'Words', 'en');
  for (const one of JSON.parse(words.textContent)) {
    said.addCue(new VTTCue(one.from, one.to, one.words));
  }
}
const ticksTo = document.body.dataset.ticksTo;
const send = async (box) => {
  const body = JSON.stringify({ box: box.dataset.box, isDone: box.checked });
  const headers = { 'content-type': 'application/json' };
  const answer = await fetch(ticksTo, { method: 'POST', headers, body }).catch(() => null);
  if (answer && answer.ok) return;
  box.checked = !box.checked;
  alert('Your coach’s machine did not take it. Are you on the gym’s network? Nothing was changed.');
};
for (const box of document.querySelectorAll('[data-box]')) {
  if (ticksTo) {
    box.addEventListener('change', () => send(box));
    continue;
  }
  const key = 'sinew ' + box.dataset.box;
  try { box.checked = localStorage.getItem(key) === '1'; } catch {}
  box.addEventListener('change', () => {
    try { box.checked ? localStorage.setItem(key, '1') : localStorage.removeItem(key); } catch {}
  });
}
`;
