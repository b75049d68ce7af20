import { Button, type ButtonProps } from "@chakra-ui/react";
import type { RefAttributes } from "react";

type Props = ButtonProps & RefAttributes<HTMLButtonElement>;

// A label with somebody's name in it may be wider than a phone: then it takes a second line.
const WRAPS = { h: "auto", maxW: "100%", py: "1.5", whiteSpace: "normal", lineHeight: "1.25" } as const;

/** The one strong action of a screen. */
export function MainButton(props: Props) {
  return (
    <Button
      {...WRAPS}
      minH="52px"
      px="6"
      bg="ink"
      color="card"
      fontSize="lead"
      fontWeight="650"
      borderRadius="10px"
      _hover={{ bg: "rope" }}
      {...props}
    />
  );
}

/** Any other action. */
export function SideButton(props: Props) {
  return (
    <Button
      {...WRAPS}
      minH="44px"
      px="4"
      bg="card"
      color="ink"
      border="1.5px solid"
      borderColor="control"
      borderRadius="10px"
      fontSize="body"
      fontWeight="600"
      _hover={{ borderColor: "ink" }}
      _pressed={{ bg: "ink", color: "card", borderColor: "ink" }}
      {...props}
    />
  );
}
