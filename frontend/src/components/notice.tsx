import { Box, Flex } from "@chakra-ui/react";
import { useSyncExternalStore } from "react";
import { SideButton } from "./Button";

interface Notice {
  text: string;
  undo?: (() => void) | undefined;
}

let current: Notice | null = null;
const listeners = new Set<() => void>();

/** Say that something was done, with its undo. It stays until the next one or until it is closed. */
export function notify(text: string, undo?: () => void): void {
  current = { text, undo };
  for (const listener of listeners) listener();
}

/** Put the notice away. */
export function closeNotice(): void {
  current = null;
  for (const listener of listeners) listener();
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
