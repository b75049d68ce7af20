import { Box, type BoxProps } from "@chakra-ui/react";

/** The main action of a screen: on a phone it stays in reach, right above the bar under the thumb. */
export function MainAction(props: BoxProps) {
  return (
    <Box
      position={{ base: "sticky", lg: "static" }}
      bottom="var(--foot, 65px)"
      zIndex="4"
      mt="4"
      mx={{ base: "-4", md: "-6", lg: "0" }}
      px={{ base: "4", md: "6", lg: "0" }}
      py={{ base: "2.5", lg: "0" }}
      bg={{ base: "paper", lg: "transparent" }}
      data-noprint
      data-main-action
      {...props}
    />
  );
}
