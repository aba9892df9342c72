import type { Metadata, Viewport } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { Toaster } from 'sonner';
import { reaches } from '@/data/access/roles';
import { whoIsHere } from '@/data/access/whoAsks';
import { manner } from '@/manner/manner';
import { AskerProvider } from '@/ui/asker';
import { CommandKeys } from '@/ui/commands/CommandKeys';
import { TrackingBar } from '@/ui/trackingBar';
import { NewsLine } from '@/ui/newsLine';
import { LIGHT_COOKIE } from '@/ui/light';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Sinew', template: '%s · Sinew' },
  description: 'Where a student’s power goes, frame by frame, and the one sentence that fixes it.',
};

export const viewport: Viewport = { themeColor: '#f7f2e9' };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const asker = await whoIsHere();
  const { measures, days } = manner();
  const isDim = (await cookies()).get(LIGHT_COOKIE)?.value === 'dim';
  return (
    <html lang="en" data-light={isDim ? 'dim' : 'day'} data-measures={measures} data-days={days}>
      <body>
        <AskerProvider name={asker?.personId ? asker.name : null}>{children}</AskerProvider>
        <CommandKeys />
        {asker && reaches(asker.role, 'coach') && (
          <>
            <NewsLine />
            <TrackingBar />
          </>
        )}
        <Toaster
          position="bottom-right"
          style={{ fontFamily: 'inherit' }}
          toastOptions={{
            unstyled: true,
            classNames: {
              toast: 'w-full border border-ink bg-paper px-4 py-3 text-ink flex items-center gap-4',
              title: 'font-semibold',
              description: 'text-soft',
              actionButton: 'ml-auto underline underline-offset-4 font-semibold',
            },
          }}
        />
      </body>
    </html>
  );
}
