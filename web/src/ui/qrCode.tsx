import { encode } from 'uqr';

/** An address that a phone's camera reads, black on white in any light. */
export function QrCode({ text, label }: { text: string; label: string }) {
  const { data, size } = encode(text, { ecc: 'M', border: 3 });
  const dark = data.flatMap((row, y) =>
    row.flatMap((isDark, x) => (isDark ? [`M${x} ${y}h1v1h-1z`] : [])),
  );
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`0 0 ${size} ${size}`}
      shapeRendering="crispEdges"
      className="block aspect-square w-full bg-white"
    >
      <path d={dark.join('')} fill="#000" />
    </svg>
  );
}
