import { useEffect, useRef, useState, type RefObject } from 'react';

export interface Size {
  width: number;
  height: number;
}

/** The size of an element in whole pixels, followed as it changes. */
export function useSize<T extends HTMLElement>(): [RefObject<T | null>, Size | undefined] {
  const host = useRef<T>(null);
  const [size, setSize] = useState<Size>();
  useEffect(() => {
    const element = host.current!;
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry.contentRect;
      setSize({ width: Math.floor(width), height: Math.floor(height) });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [host, size];
}
