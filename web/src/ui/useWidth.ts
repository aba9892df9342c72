import { useEffect, useState, type RefObject } from 'react';

/** The width of an element in CSS pixels, kept up to date; 0 before it is laid out. */
export function useWidth(element: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
