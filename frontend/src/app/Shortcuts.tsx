import { Box, chakra, Text } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { useLocation, useNavigate } from "react-router";
import { SideButton } from "../components/Button";

const KEYS: readonly [string, string][] = [
  ["p", "Pools"],
  ["t", "Test: the slip of this pool"],
  ["b", "Today and the board of this pool"],
  ["s", "Run sheet of this pool"],
  ["c", "Care of this pool"],
  ["y", "Season of this pool"],
  ["l", "Log of this pool"],
  ["r", "Today’s round"],
  ["e", "Emergency"],
  ["?", "These shortcuts"],
];
const STATIONS: Record<string, string> = {
  t: "/slip",
  b: "",
  s: "/sheet",
  l: "/log",
  y: "/season",
  c: "/care",
};
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
  const pool = pathname.match(/^\/pools\/[0-9a-f-]{36}/)?.[0];

  useEffect(() => {
    function onKey(event: KeyboardEvent) {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === "?") dialog.current?.showModal();
      else if (event.key === "p") void navigate("/");
      else if (event.key === "r") void navigate("/round");
      else if (event.key === "e") void navigate("/emergency");
      else if (pool !== undefined && STATIONS[event.key] !== undefined)
        void navigate(pool + STATIONS[event.key]);
      else return;
      event.preventDefault();
    }
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, pool]);

  return (
    <>
      <SideButton
        aria-label="Keyboard shortcuts"
        px="3"
        minW="44px"
        onClick={() => dialog.current?.showModal()}
      >
        ?
      </SideButton>
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
    </>
  );
}
