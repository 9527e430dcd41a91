import { useEffect, useRef } from "react";

/** A place that is scrolled into sight, as little as that takes, once it becomes the one that is looked at. */
export function useIntoSight<Place extends HTMLElement = HTMLDivElement>(isLookedAt: boolean) {
  const place = useRef<Place>(null);
  useEffect(() => {
    if (isLookedAt) place.current?.scrollIntoView({ block: "nearest" });
  }, [isLookedAt]);
  return place;
}
