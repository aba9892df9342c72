'use client';

import { scaleLinear, type ScaleLinear } from 'd3-scale';
import {
  useMemo,
  useRef,
  useState,
  type PointerEvent,
  type ReactNode,
  type WheelEvent,
} from 'react';
import type { LinkVerdict } from '@sinew/core/measure/chain/verdict';
import { evidenceOf } from '@sinew/core/measure/measures/evidence';
import {
  EVENTS,
  wordsFor,
  type EventMark,
  type EventName,
  type Marks,
} from '@sinew/core/measure/events/events';
import { techniqueById, type Technique } from '@sinew/core/foundation/technique/techniques';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { marksOf } from '@sinew/core/analysis/analyzeClip';
import type { StrikeDocument } from '@sinew/core/analysis/clipDocument';
import { say } from '@/manner/manner';
import { Key } from '@/ui/button';
import { useWidth } from '@/ui/useWidth';
import { documentOf, strikeOf, useBench, useBenchStore } from '../document/benchStore';
import { PoseFigure } from './PoseFigure';
import {
  ANY_TECHNIQUE,
  AXIS,
  AXIS_EVENTS,
  EVENT_KEY,
  FLOOR,
  HEIGHT,
  laneHeight,
  lanesOf,
  TOP,
} from './lanes';
import { StripDrawings } from './StripDrawings';
import { StripEvidence } from './StripEvidence';
import { StripMark } from './StripMark';
import { Phases } from './StripPhases';
import { StripSound } from './StripSound';
import { StripTake } from './StripTake';
import { Cascade } from './StripCascade';
import { Lanes, Traces } from './StripTraces';
import { useRealTimes } from '../document/realTimes';
import { useAnalysis } from '../document/useAnalysis';
import { useCommands } from '@/ui/commands/registry';

type Scale = ScaleLinear<number, number>;

/** Time across, links upwards: where each link starts, what phase follows, and where we are. */
export function ChainStrip() {
  const technique = useTechnique();
  const times = useRealTimes();
  const strike = useBench(strikeOf);
  const frame = useBench((state) => state.frame);
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const marks = useMemo(() => (strike ? marksOf(strike, times) : {}), [strike, times]);
  const proposed = useProposed(marks);
  const stretch = useStretch(strike, times);
  const begin = () => partOf(strike?.id, isDone(marks) ? marks : {}, stretch);
  const [part, setPart] = useState<Part>(begin);
  if (part.strikeId !== strike?.id) setPart(begin());
  const canZoom = stretch !== null || Object.keys(marks).length >= FEWEST_MARKS;
  const toggle = () =>
    setPart(part.span ? { strikeId: strike?.id, span: null } : partOf(strike?.id, marks, stretch));
  useCommands(() => [
    {
      id: 'whole clip',
      keys: ['z'],
      words: 'strip: whole clip or this strike',
      group: 'Through the film',
      run: toggle,
    },
  ]);
  const [from, to] = shown(part, times, times[frame]!);
  const x = useMemo(
    () => scaleLinear([from, to], [PAD, Math.max(PAD + 1, width - PAD)]),
    [from, to, width],
  );

  return (
    <section
      aria-label="Chain strip"
      className="grid grid-cols-[284px_minmax(0,1fr)] border-t border-ink max-md:order-1 max-md:grid-cols-[5.5rem_minmax(0,1fr)] md:col-span-2"
    >
      <LaneNames technique={technique}>
        {canZoom && (
          <button
            type="button"
            onClick={toggle}
            className="flex items-center gap-1.5 whitespace-nowrap text-soft hover:text-ink"
          >
            {part.span ? 'Whole clip' : strike?.combination ? 'This combination' : 'This strike'}
            <span className="contents max-md:hidden">
              <Key>Z</Key>
            </span>
          </button>
        )}
      </LaneNames>
      <div ref={box} className="relative min-w-0 overflow-hidden">
        {width > 0 && (
          <Strip
            x={x}
            width={width}
            marks={marks}
            proposed={proposed}
            times={times}
            technique={technique}
          />
        )}
      </div>
    </section>
  );
}

/** Instants that the program has read off the points and the coach has not marked. */
function useProposed(marks: Marks): Marks {
  const events = useAnalysis()?.events;
  return useMemo(
    () =>
      Object.fromEntries(
        EVENTS.flatMap((name) => {
          const event = events?.[name];
          return event && !marks[name] ? [[name, event] as const] : [];
        }),
      ),
    [events, marks],
  );
}

function useTechnique(): Technique {
  const id = useBench((state) => strikeOf(state)?.technique);
  return useMemo(() => (id ? techniqueById(id) : ANY_TECHNIQUE), [id]);
}

/** The part of the clip on the strip; it stays while marks are moved, so that they follow the hand. */
interface Part {
  readonly strikeId: string | undefined;
  /** Seconds from and to; null for the whole clip. */
  readonly span: readonly [number, number] | null;
}

const MARGIN = 0.12;
/** With fewer there is no stretch of the clip to show. */
const FEWEST_MARKS = 2;
const PAD = 14;

/** The stretch of a take that a strike, or the whole of its combination, was found in; seconds. */
function useStretch(
  strike: StrikeDocument | null,
  times: readonly number[],
): readonly [number, number] | null {
  const strikes = useBench((state) => documentOf(state).strikes);
  return useMemo(() => {
    const together = strikes.filter(
      ({ id, combination }) =>
        id === strike?.id || (combination !== undefined && combination === strike?.combination),
    );
    const spans = together.flatMap(({ span }) => (span ? [span] : []));
    if (!strike?.span || spans.length === 0) return null;
    const at = (frame: number) => times[Math.min(frame, times.length - 1)]!;
    return [at(Math.min(...spans.map((s) => s.from))), at(Math.max(...spans.map((s) => s.to)))];
  }, [strike, strikes, times]);
}

function partOf(
  strikeId: string | undefined,
  marks: Marks,
  stretch: readonly [number, number] | null,
): Part {
  if (stretch) return { strikeId, span: stretch };
  const marked = Object.values(marks).map((mark) => mark.time);
  const span = [Math.min(...marked) - MARGIN, Math.max(...marked) + MARGIN] as const;
  return { strikeId, span: marked.length >= FEWEST_MARKS ? span : null };
}

const isDone = (marks: Marks) => marks.contact !== undefined && marks.home !== undefined;

/** The part, moved along when the frame in hand lies outside it; anew around one that is far off. */
function shown({ span }: Part, times: readonly number[], now: number): readonly [number, number] {
  const last = times[times.length - 1]!;
  if (!span) return [0, last];
  const [from, to] = [Math.max(0, span[0]), Math.min(last, span[1])];
  const beyond = Math.max(0, now - to) - Math.max(0, from - now);
  const isFar = Math.abs(beyond) > (to - from) / 5;
  const shift = isFar ? now - (from + to) / 2 : beyond;
  return [from + shift, to + shift];
}

function LaneNames({ technique, children }: { technique: Technique; children: ReactNode }) {
  const side = useBench((state) => strikeOf(state)?.side ?? 'right');
  const links = useAnalysis()?.links ?? {};
  const lanes = lanesOf(technique);
  return (
    <div className="border-r border-rule text-sm">
      <div className="flex items-center justify-between pl-4 max-md:pl-2" style={{ height: TOP }}>
        {children}
        <span className="ml-auto w-[4.75rem] max-md:hidden">
          <MarkButton event="contact" technique={technique} />
        </span>
      </div>
      <div className="flex">
        <span className="contents max-md:hidden">
          <PoseFigure technique={technique} side={side} links={links} />
        </span>
        <div className="flex-1">
          {lanes.map((lane) => (
            <div
              key={lane.link}
              className="flex items-center"
              style={{ height: laneHeight(lanes) }}
            >
              <span data-lane-name className="w-18 font-semibold max-md:pl-2">
                {lane.name}
              </span>
              <span className="w-19 max-md:hidden">
                <Verdict link={links[lane.link]} />
              </span>
              {lane.event && (
                <span className="max-md:hidden">
                  <MarkButton event={lane.event} technique={technique} />
                </span>
              )}
            </div>
          ))}
        </div>
      </div>
      <div
        className="flex items-center gap-2 pl-4 text-xs max-md:invisible"
        style={{ height: AXIS }}
      >
        {AXIS_EVENTS.map((event) => (
          <MarkButton key={event} event={event} technique={technique} />
        ))}
      </div>
    </div>
  );
}

const BAR: Record<LinkVerdict['verdict'], string> = {
  drives: 'h-3.5 bg-ink',
  neutral: 'h-3.5 border border-ink',
  drags: 'h-1.5 translate-y-1 bg-now',
};

/** What the link does for the strike: by a bar's shape, by word, and only then by colour. */
function Verdict({ link }: { link: LinkVerdict | undefined }) {
  if (!link) return null;
  const { verdict, share } = link;
  return (
    <span
      title={`${verdict}: ${say(share)} of the striking end’s speed`}
      className={`flex items-center gap-1.5 ${verdict === 'drags' ? 'text-now' : 'text-soft'}`}
    >
      <span className={`w-2 ${BAR[verdict]}`} />
      {verdict}
    </span>
  );
}

/** Marks (or, on its own frame, clears) an event at the frame in hand. */
function MarkButton({ event, technique }: { event: EventName; technique: Technique }) {
  const { name, meaning } = wordsFor(event, technique);
  const store = useBenchStore();
  const isDisabled = useBench((state) => strikeOf(state) === null);
  return (
    <button
      type="button"
      disabled={isDisabled}
      onClick={() => store.getState().mark(event)}
      title={`${name}: ${meaning}`}
      className="flex items-center gap-1 text-soft hover:text-ink disabled:opacity-50"
    >
      <Key>{EVENT_KEY[event]}</Key> {name}
    </button>
  );
}

interface StripProps {
  readonly x: Scale;
  readonly width: number;
  readonly marks: Marks;
  readonly proposed: Marks;
  readonly times: readonly number[];
  readonly technique: Technique;
}

function Strip({ x, width, marks, proposed, times, technique }: StripProps) {
  const lanes = lanesOf(technique);
  const store = useBenchStore();
  const frame = useBench((state) => state.frame);
  const svg = useRef<SVGSVGElement>(null);
  const isStrikes = useBench((state) => strikeOf(state)?.isAutomatic === true);
  const all = { ...proposed, ...marks };

  const frameAt = (event: { clientX: number }) => {
    const left = svg.current!.getBoundingClientRect().left;
    return nearestFrame(times, x.invert(event.clientX - left));
  };
  const scrub = (event: PointerEvent) => {
    if (event.buttons !== 1) return;
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId);
    store.getState().goTo(frameAt(event));
  };
  const wheel = (event: WheelEvent) => {
    const { frame: now, goTo } = store.getState();
    goTo(now + Math.sign(event.deltaY || event.deltaX) * (event.shiftKey ? 10 : 1));
  };

  return (
    <svg
      ref={svg}
      data-strip
      width={width}
      height={HEIGHT}
      onPointerDown={scrub}
      onPointerMove={scrub}
      onWheel={wheel}
      role="slider"
      aria-label="Frame"
      aria-valuemin={0}
      aria-valuemax={times.length - 1}
      aria-valuenow={frame}
      aria-valuetext={`frame ${frame}, ${times[frame]!.toFixed(3)} seconds`}
      tabIndex={0}
      className="block touch-none select-none"
    >
      <Phases x={x} width={width} marks={all} />
      <TimeAxis x={x} />
      <Lanes x={x} width={width} times={times} lanes={lanes} />
      <Traces x={x} lanes={lanes} />
      <Cascade x={x} lanes={lanes} until={all.contact?.time} />
      <StripSound x={x} />
      <StripTake x={x} />
      <StripDrawings x={x} />
      {(Object.entries(all) as [EventName, EventMark][]).map(([event, mark]) => (
        <StripMark
          key={event}
          event={event}
          mark={mark}
          x={x}
          frameAt={frameAt}
          lanes={lanes}
          isAutomatic={isStrikes || !marks[event]}
          name={wordsFor(event, technique).name}
        />
      ))}
      <StripEvidence x={x} width={width} lanes={lanes} />
      <EvidenceSpan x={x} />
      <Cursor at={x(times[frame]!)} />
    </svg>
  );
}

/** The two instants that the evidence in hand rests on. */
function EvidenceSpan({ x }: { x: Scale }) {
  const id = useBench((state) => state.evidence);
  const strike = useBench(strikeOf);
  const stance = useBench((state) => state.student.stance);
  const events = useAnalysis()?.events;
  if (!id || !strike || !events) return null;
  const technique = techniqueById(strike.technique);
  const evidence = evidenceOf(id, { technique, side: strike.side, stance });
  if (!evidence || !('span' in evidence)) return null;
  const [from, to] = evidence.span.map((event) => events[event]);
  if (!from || !to) return null;
  const [left, right] = [x(Math.min(from.time, to.time)), x(Math.max(from.time, to.time))];
  return (
    <g pointerEvents="none" className="fill-now stroke-now">
      <rect
        x={left}
        y={TOP}
        width={Math.max(1, right - left)}
        height={FLOOR - TOP}
        fillOpacity={0.14}
        stroke="none"
      />
      <path
        d={`M${left} ${TOP - 3}v6M${left} ${TOP}H${right}M${right} ${TOP - 3}v6`}
        strokeWidth={2}
      />
    </g>
  );
}

function TimeAxis({ x }: { x: Scale }) {
  return (
    <g pointerEvents="none">
      {x.ticks(10).map((time) => (
        <g key={time} transform={`translate(${x(time)} ${FLOOR})`}>
          <line y2={4} className="stroke-soft" />
          <text y={AXIS - 6} fontSize={12} textAnchor="middle" className="fill-soft">
            {time.toFixed(time % 0.1 > 0.001 && time % 0.1 < 0.099 ? 2 : 1)}
          </text>
        </g>
      ))}
    </g>
  );
}

function Cursor({ at }: { at: number }) {
  return (
    <g pointerEvents="none" className="fill-now stroke-now">
      <line x1={at} x2={at} y1={TOP - 2} y2={FLOOR + 6} strokeWidth={1.5} />
      <path d={`M${at - 6} ${TOP - 9}h12l-6 8z`} stroke="none" />
    </g>
  );
}
