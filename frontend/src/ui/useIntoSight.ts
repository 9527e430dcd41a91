import { useEffect, useRef } from "react";

/** A place that is scrolled into sight, as little as that takes, once it becomes the one that is looked at. */
export function useIntoSight(isLookedAt: boolean) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (isLookedAt) place.current?.scrollIntoView({ block: "nearest" });
  }, [isLookedAt]);
  return place;
}
