import { Box, Flex } from "@chakra-ui/react";
import { useSyncExternalStore } from "react";
import { SideButton } from "./Button";

interface Notice {
  text: string;
  /** When it was said, by the page's own clock. */
  at: number;
  undo?: (() => void) | undefined;
}

let current: Notice | null = null;
const listeners = new Set<() => void>();

/** Say that something was done, with its undo. It stays until the next one or until it is closed. */
export function notify(text: string, undo?: () => void): void {
  current = { text, undo, at: performance.now() };
  for (const listener of listeners) listener();
}

/** Put the notice away. */
export function closeNotice(): void {
  current = null;
  for (const listener of listeners) listener();
}

/** Said with the step that led to this page; older ones are of the page before. */
const JUST_NOW_MS = 1_000;

/** On another page what was only said is put away; what can be undone stays. */
export function turnThePage(): void {
  if (current === null || current.undo || performance.now() - current.at < JUST_NOW_MS) return;
  closeNotice();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function NoticeBar() {
  const notice = useSyncExternalStore(subscribe, () => current);
  return (
    <Box
      position="absolute"
      bottom="100%"
      left="0"
      right="0"
      pointerEvents="none"
      role="status"
      aria-live="polite"
      data-noprint
    >
      {notice !== null && (
        <Flex
          mx="auto"
          mb="3"
          px="4"
          py="2"
          gap="3"
          align="center"
          w="fit-content"
          maxW="calc(100vw - 1.5rem)"
          // Over the action that stays above the bar, not on it.
          css={{ "body:has([data-main-action]) &": { mb: { base: "84px", lg: "3" } } }}
          bg="ink"
          color="card"
          borderRadius="10px"
          pointerEvents="auto"
        >
          <span>{notice.text}</span>
          {notice.undo && (
            <SideButton
              onClick={() => {
                notice.undo?.();
                closeNotice();
              }}
            >
              Undo
            </SideButton>
          )}
          <SideButton aria-label="Close this message" px="3" onClick={closeNotice}>
            ×
          </SideButton>
        </Flex>
      )}
    </Box>
  );
}
