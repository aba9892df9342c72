// @vitest-environment happy-dom
/** The page of a student's bands: printed sheets or tape. */
import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { BandKind } from '@sinew/core/observe/band/band';
import { BandsScreen } from '@/screens/bands/BandsScreen';
import { PAPERS } from '@/screens/bands/paper';
import { onScreen, student } from './kit';

vi.mock('@/screens/bands/actions', () => ({ saveBands: vi.fn() }));
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push: vi.fn(), refresh: vi.fn() }),
  usePathname: () => '/',
}));

afterEach(cleanup);

function page(kind: BandKind) {
  const bands = { kind, girths: { hips: 0.96, ribs: null }, seam: 'front' } as const;
  return onScreen(<BandsScreen student={student({ bands })} paper={PAPERS[0]!} sheets={null} />);
}

describe('a student’s bands', () => {
  it('printed: sheets to scale, and where the ends meet', () => {
    page('printed');
    expect(screen.getByRole('button', { name: /Print/ })).toBeTruthy();
    expect(screen.getByRole('region', { name: 'Sheets' })).toBeTruthy();
    expect(screen.getByLabelText('Ends meet')).toBeTruthy();
  });

  it('of tape: nothing to print, nothing asked about ends', () => {
    page('tape');
    expect(screen.queryByRole('button', { name: /Print/ })).toBeNull();
    expect(screen.queryByRole('region', { name: 'Sheets' })).toBeNull();
    expect(screen.queryByLabelText('Ends meet')).toBeNull();
    expect(screen.getByRole('img', { name: 'A row of tape, laid flat' })).toBeTruthy();
  });

  it('ask about ends again as soon as sheets are chosen', async () => {
    const { user } = page('tape');
    await user.selectOptions(screen.getByLabelText('Made of'), 'printed');
    expect(screen.getByLabelText('Ends meet')).toBeTruthy();
  });
});
