import { useEffect, useRef, useState, type ReactNode } from 'react';

/** What takes some fetching is there once its place comes into view, and then stays. `height` is kept for it, px. */
export function WhenSeen({ height, children }: { readonly height: number; readonly children: ReactNode }) {
  const place = useRef<HTMLDivElement>(null);
  const [isSeen, setSeen] = useState(false);
  useEffect(() => {
    if (isSeen) return undefined;
    const observer = new IntersectionObserver((entries) => entries.some((entry) => entry.isIntersecting) && setSeen(true));
    observer.observe(place.current!);
    return () => observer.disconnect();
  }, [isSeen]);
  return isSeen ? children : <div ref={place} style={{ minHeight: height }} />;
}
