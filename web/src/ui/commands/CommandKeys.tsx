'use client';

import { useEffect } from 'react';
import { press } from './registry';

/** The one listener for keys: hands what is pressed to the commands of the screen. */
export function CommandKeys() {
  useEffect(() => {
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  }, []);
  return null;
}
