'use client';

import { Button } from '@/ui/button';

export function PrintButton() {
  return (
    <Button weight="main" onClick={() => print()}>
      Print
    </Button>
  );
}
