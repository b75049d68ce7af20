import { Box } from "@chakra-ui/react";
import { type ReactNode, useEffect, useRef } from "react";

/** What stays at the foot of the screen. How high it is with its bars is known to what stays right above it. */
export function Foot({ children }: { children: ReactNode }) {
  const foot = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const seen = foot.current;
    if (seen === null) return;
    const page = document.documentElement.style;
    const watcher = new ResizeObserver(() => {
      // Rounded down: half a pixel between the two would show what scrolls behind them.
      page.setProperty("--foot", `${Math.floor(seen.getBoundingClientRect().height)}px`);
    });
    watcher.observe(seen);
    return () => {
      watcher.disconnect();
      page.removeProperty("--foot");
    };
  }, []);
  return (
    <Box ref={foot} position="sticky" bottom="0" zIndex="5" data-noprint data-foot>
      {children}
    </Box>
  );
}
