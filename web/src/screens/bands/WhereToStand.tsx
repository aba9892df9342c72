/** From above: the student with the bands on, the target, and the phone where nothing stands between. */
export function WhereToStand({ distance, isFront }: { distance: number; isFront: boolean }) {
  return (
    <figure>
      <svg
        viewBox="0 0 420 132"
        role="img"
        aria-label="Where to stand, seen from above"
        className="w-full max-w-[460px]"
      >
        {/* The target. */}
        <rect x={8} y={48} width={20} height={36} className="fill-ink" />
        <text x={18} y={104} fontSize={13} textAnchor="middle" className="fill-ink">
          target
        </text>
        {/* The student in guard, turned half away, with arms in front. */}
        <g transform="translate(112 66) rotate(-40)">
          <path
            d="M-8 -32L-52 -14M-8 32L-48 6"
            strokeWidth={8}
            strokeLinecap="round"
            className="stroke-shade"
          />
          <ellipse rx={19} ry={36} className="fill-paper stroke-ink" strokeWidth={2} />
          <ellipse
            rx={19}
            ry={36}
            fill="none"
            strokeWidth={7}
            strokeDasharray="7 5 3 6 9 4"
            className="stroke-ink"
          />
        </g>
        <text x={112} y={122} fontSize={13} textAnchor="middle" className="fill-ink">
          student
        </text>
        {/* What the phone sees. */}
        <path
          d="M330 66L150 20M330 66L150 112"
          strokeWidth={1}
          strokeDasharray="3 4"
          className="stroke-soft"
        />
        <rect x={330} y={52} width={9} height={28} className="fill-now" />
        <text x={335} y={104} fontSize={13} textAnchor="middle" className="fill-ink">
          phone
        </text>
        <text
          x={236}
          y={61}
          fontSize={14}
          textAnchor="middle"
          className="fill-ink"
          fontWeight={600}
        >
          {distance.toFixed(1)} m
        </text>
      </svg>
      <figcaption className="text-base">
        Film from <strong>{isFront ? 'behind' : 'the front'}</strong>, level, at belt height, with
        120 pictures a second or more.{' '}
        {isFront
          ? 'There no arm comes between; from the side and the front the guard hides the ribs until it moves.'
          : 'The guard hides the ribs there until it moves: with the ends in front and the phone behind more can be read.'}
      </figcaption>
    </figure>
  );
}
