import { Box, chakra, Text } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { useLocation, useNavigate } from "react-router";
import { SideButton } from "../components/Button";
import { useMe } from "../lib/me";
import { houseStations, poolOf, poolStations } from "./stations";

const KEYS: readonly [string, string][] = [
  ["/", "Find a pool, a task, a page (also Ctrl-K)"],
  ["p", "Pools"],
  ["r", "Today’s round"],
  ["b", "Today and the board of this pool"],
  ["t", "Test this pool"],
  ["s", "Plan of this pool"],
  ["l", "Log of this pool"],
  ["v", "Visit at this pool"],
  ["c", "Care of this pool"],
  ["y", "Season of this pool"],
  ["e", "Emergency"],
  ["?", "These shortcuts"],
];
const Dialog = chakra("dialog", {
  base: {
    m: "auto",
    p: "6",
    bg: "card",
    color: "ink",
    borderRadius: "10px",
    border: "1px solid",
    borderColor: "hairline",
    maxW: "26rem",
  },
});

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.matches("input, textarea, select") || target.isContentEditable)
  );
}

/** One-letter shortcuts, off while typing, listed on "?". */
export function Shortcuts() {
  const dialog = useRef<HTMLDialogElement>(null);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const pool = poolOf(pathname);
  const role = useMe()?.role;

  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      const here = pool === undefined ? [] : poolStations(pool, role);
      const station = [...here, ...houseStations(role)].find(({ letter }) => letter === event.key);
      if (event.key === "?") dialog.current?.showModal();
      else if (event.key === "e") void navigate("/emergency");
      else if (station !== undefined) void navigate(station.to);
      else return;
      event.preventDefault();
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, pool, role]);

  return (
    <Dialog ref={dialog} aria-label="Keyboard shortcuts">
      <Text as="h2" fontSize="title" fontWeight="700" mb="3">
        Keyboard
      </Text>
      <Box as="dl" display="grid" gridTemplateColumns="3rem 1fr" gap="2" mb="5">
        {KEYS.map(([key, what]) => (
          <Box key={key} display="contents">
            <Text as="dt" fontWeight="700">
              {key}
            </Text>
            <Text as="dd" m="0">
              {what}
            </Text>
          </Box>
        ))}
      </Box>
      <SideButton onClick={() => dialog.current?.close()}>Close</SideButton>
    </Dialog>
  );
}
