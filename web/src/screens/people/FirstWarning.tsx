import type { ReactNode } from 'react';

/** What a phone does the first time, drawn before it happens: it warns, the codes are compared, it goes on. */
export function FirstWarning({ fingerprint }: { fingerprint: string }) {
  const begins = fingerprint.split(':').slice(0, 2).join(':');
  return (
    <div className="mt-4">
      <ol className="grid grid-cols-3 gap-4 text-sm">
        <li>
          <Drawing>
            <Phone x={38}>
              <path d="M56 26 72 56H40Z" className="fill-none stroke-now" strokeWidth={2.5} />
              <path d="M56 37V46M56 50V51" className="stroke-now" strokeWidth={2.5} />
            </Phone>
          </Drawing>
          <strong>The phone warns</strong> that it does not know this machine: no authority vouches
          for a laptop in a gym.
        </li>
        <li>
          <Drawing>
            <Phone x={8}>
              <Code x={26} begins={begins} />
            </Phone>
            <text x={56} y={50} textAnchor="middle" className="fill-ink text-[14px]">
              =
            </text>
            <rect
              x={66}
              y={22}
              width={42}
              height={30}
              className="fill-none stroke-ink"
              strokeWidth={2}
            />
            <path d="M60 58H114" className="stroke-ink" strokeWidth={3} />
            <Code x={87} begins={begins} y={40} />
          </Drawing>
          Under <em>Advanced</em> or <em>Show details</em> is its certificate: hold the{' '}
          <strong>SHA-256 code</strong> against the one here.
        </li>
        <li>
          <Drawing>
            <Phone x={38}>
              <path d="M44 42 53 51 69 31" className="fill-none stroke-ink" strokeWidth={3} />
            </Phone>
          </Drawing>
          <strong>The same? Go on</strong> to the page; the phone asks no more. Another? Go back,
          and tell the owner.
        </li>
      </ol>
      <p className="mt-3 font-mono text-[12px] leading-5 break-all" aria-label="Fingerprint">
        {fingerprint}
      </p>
      <p className="mt-2 text-sm">
        A certificate of your own takes its place with <code className="bg-tint px-1">--cert</code>{' '}
        and <code className="bg-tint px-1">--cert-key</code>.
      </p>
    </div>
  );
}

function Drawing({ children }: { children: ReactNode }) {
  return (
    <svg viewBox="0 0 112 84" aria-hidden className="mb-2 w-full max-w-40">
      {children}
    </svg>
  );
}

function Phone({ x, children }: { x: number; children: ReactNode }) {
  return (
    <>
      <rect
        x={x}
        y={4}
        width={36}
        height={76}
        rx={4}
        className="fill-none stroke-ink"
        strokeWidth={2}
      />
      {children}
    </>
  );
}

/** The beginning of the code, where the whole of it would stand. */
function Code({ x, y = 42, begins }: { x: number; y?: number; begins: string }) {
  return (
    <text x={x} y={y} textAnchor="middle" className="fill-ink font-mono text-[9px]">
      {begins}
    </text>
  );
}
