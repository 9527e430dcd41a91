// A function that stays the same object, whatever it closes over: what is given it need not be drawn again.
import { useLayoutEffect, useRef, useState } from "react";

export function useStable<Arguments extends unknown[], Result>(
  run: (...given: Arguments) => Result,
): (...given: Arguments) => Result {
  const latest = useRef(run);
  // Before anything else can run: what is asked between drawing and a later effect would still see what was.
  useLayoutEffect(() => {
    latest.current = run;
  });
  const [stable] = useState(
    () =>
      (...given: Arguments) =>
        latest.current(...given),
  );
  return stable;
}
