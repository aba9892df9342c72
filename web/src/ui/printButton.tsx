'use client';

import { Button } from './button';

export function PrintButton() {
  return (
    <Button weight="main" onClick={() => print()}>
      Print
    </Button>
  );
}
