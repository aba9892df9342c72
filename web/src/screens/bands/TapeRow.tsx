/** Centimetres of strip and gap, by turns, round a body; nobody has to keep to them. */
const STRIPS = [2, 1, 4, 3, 1, 2, 5, 1, 3, 4, 1, 1, 2, 3, 6, 2, 1, 4, 2, 1, 3, 2];
const TALL = 7;

/** What a row of tape may look like, laid flat. */
export function TapeRow() {
  const edges = STRIPS.map((_, i) => STRIPS.slice(0, i).reduce((sum, one) => sum + one, 0));
  const long = STRIPS.reduce((sum, one) => sum + one, 0);
  return (
    <figure className="max-w-[620px] self-start print:hidden">
      <svg
        viewBox={`-0.2 -0.2 ${long + 0.4} ${TALL + 3}`}
        role="img"
        aria-label="A row of tape, laid flat"
        className="w-full"
      >
        <rect width={long} height={TALL} strokeWidth={0.1} className="fill-paper stroke-rule" />
        {STRIPS.map(
          (wide, i) =>
            i % 2 === 0 && (
              <rect key={i} x={edges[i]} width={wide} height={TALL} className="fill-ink" />
            ),
        )}
        <path d={`M${edges[6]} ${TALL + 0.6}h5`} strokeWidth={0.15} className="stroke-soft" />
        <text
          x={edges[6]! + 2.5}
          y={TALL + 2.2}
          fontSize={1.4}
          textAnchor="middle"
          className="fill-soft"
        >
          5 cm
        </text>
      </svg>
      <figcaption className="mt-2 font-serif text-xl text-soft">
        Half of a row, laid flat: one like it, no two stretches alike. Nothing to print.
      </figcaption>
    </figure>
  );
}
