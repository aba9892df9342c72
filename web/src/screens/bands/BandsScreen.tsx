import Link from 'next/link';
import { BANDS } from '@sinew/core/observe/band/band';
import { sheetsFor, sheetsOf } from '@sinew/core/observe/band/sheets';
import { cameraPlace, questionById } from '@sinew/core/foundation/technique/questions';
import type { Student } from '@/data/student/students';
import { PrintButton } from '@/ui/printButton';
import { StudentBar } from '@/ui/studentBar';
import { BandSheet } from './BandSheet';
import { GirthForm } from './GirthForm';
import { PAPERS, type Paper } from './paper';
import { TapeRow } from './TapeRow';
import { WhereToStand } from './WhereToStand';

/** Sheets that go round most people: up to 94 cm. */
const USUAL_SHEETS = 4;
const USUAL_HEIGHT = 1.75;
const COUNTS = [3, 4, 5, 6] as const;

/** Two bands to print, put on and be filmed with: what lets one phone see who moves first. */
export function BandsScreen({
  student,
  paper,
  sheets,
}: {
  student: Student;
  paper: Paper;
  /** As asked for; null leaves it to the girths. */
  sheets: number | null;
}) {
  const known = BANDS.flatMap((band) => student.bands.girths[band] ?? []);
  const count = sheets ?? (known.length > 0 ? sheetsFor(Math.max(...known)) : USUAL_SHEETS);
  const [hips, ribs] = BANDS.map((band) => sheetsOf(band, count));
  const isTape = student.bands.kind === 'tape';
  const isFront = student.bands.seam === 'front';
  const place = cameraPlace(questionById('order'), 'behind', student.heightM ?? USUAL_HEIGHT);
  const address = (change: { paper?: string; sheets?: number }) =>
    `/students/${student.id}/bands?${new URLSearchParams({
      paper: change.paper ?? paper.id,
      sheets: String(change.sheets ?? count),
    })}`;
  return (
    <>
      <style>{`@media print { @page { size: ${paper.css}; margin: 0 } .band-sheet { width: ${paper.width}mm; height: ${paper.height}mm; break-after: page } .band-sheet:last-child { break-after: auto } body { padding: 0 } }`}</style>
      <div className="print:hidden">
        <StudentBar student={student} here={null} right={isTape ? null : <PrintButton />} />
      </div>
      <main className="mx-auto grid max-w-[1280px] gap-x-10 gap-y-6 px-4 sm:px-8 pt-7 pb-16 max-md:px-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)] print:block print:max-w-none print:p-0">
        <div className="space-y-6 print:hidden">
          <div>
            <h1 className="font-serif text-[2.6rem] leading-none">Bands</h1>
            <p className="mt-2 font-serif text-xl leading-snug">
              Round hips and ribs they let one phone see which of the two moves first.
            </p>
          </div>
          {isTape ? <TapeSteps /> : <PrintedSteps isFront={isFront} />}
          <section aria-label="Girths">
            <GirthForm student={student} />
          </section>
          <WhereToStand distance={place.distance} isFront={isTape || isFront} />
          <p className="text-sm text-soft">
            Tried on simulated bodies, not yet on people: cloth may slip more than that. What slips
            is in the ±, as far as it is known.
          </p>
        </div>
        {isTape ? (
          <TapeRow />
        ) : (
          <section aria-label="Sheets" className="space-y-4 print:space-y-0">
            <nav
              aria-label="Paper"
              className="flex flex-wrap items-baseline gap-x-5 gap-y-2 print:hidden"
            >
              {PAPERS.map(({ id, name }) => (
                <Choice key={id} href={address({ paper: id })} isHere={id === paper.id}>
                  {name}
                </Choice>
              ))}
              <span className="ml-auto text-soft">goes round up to</span>
              {COUNTS.map((one) => (
                <Choice key={one} href={address({ sheets: one })} isHere={one === count}>
                  {one * 24 - 2} cm
                </Choice>
              ))}
            </nav>
            {hips!.map((strip, i) => (
              <BandSheet
                key={i}
                strips={[strip, ribs![i]!]}
                sheet={i + 1}
                count={count}
                paper={paper}
              />
            ))}
          </section>
        )}
      </main>
    </>
  );
}

function PrintedSteps({ isFront }: { isFront: boolean }) {
  return (
    <ol className="list-decimal space-y-2 pl-5 text-base">
      <li>
        Print at 100 %. Glue each row of sheets into one strip, and the strip onto a belt or
        elastic.
      </li>
      <li>
        Pull them tight over a tight shirt: one round the widest part of the hips, one as high on
        the ribs as the armpits let it. Triangle {isFront ? 'at the back' : 'in front'}, ends
        meeting {isFront ? 'in front' : 'at the back'}.
      </li>
      <li>
        Where the ends meet, both show the same number. Type it in, once for each student and band.
      </li>
    </ol>
  );
}

function TapeSteps() {
  return (
    <ol className="list-decimal space-y-2 pl-5 text-base">
      <li>
        Stick strips of tape upright on a tight shirt or a belt, all the way round: dark on light,
        or light on dark, 7 cm tall, one to six centimetres wide, no two gaps alike.
      </li>
      <li>
        One row round the widest part of the hips, one as high on the ribs as the armpits let it.
        Measure round where they sit, and type it in.
      </li>
      <li>
        Begin each film in guard. Tape tells when hips and trunk turn, and which is first, though in
        fewer films than the sheets; how far they turn only about: for that, print the sheets.
      </li>
    </ol>
  );
}

function Choice({
  href,
  isHere,
  children,
}: {
  href: string;
  isHere: boolean;
  children: React.ReactNode;
}) {
  return (
    <Link
      href={href}
      replace
      scroll={false}
      aria-current={isHere ? 'page' : undefined}
      className="py-1 font-semibold text-soft aria-[current]:text-ink aria-[current]:underline aria-[current]:underline-offset-4"
    >
      {children}
    </Link>
  );
}
