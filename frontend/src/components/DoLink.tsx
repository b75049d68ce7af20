import { Text } from "@chakra-ui/react";
import type { ComponentProps, ReactNode } from "react";
import { useReadsOnly } from "../lib/me";
import { PlainLink } from "./TextLink";

type Link = ComponentProps<typeof PlainLink>;

interface DoLinkProps extends Pick<Link, "color" | "fontWeight" | "textDecoration" | "_hover"> {
  to: string;
  children: ReactNode;
}

/** A link to where something is done; for who only reads, its words alone. */
export function DoLink({ to, children, ...style }: DoLinkProps) {
  const readsOnly = useReadsOnly();
  if (readsOnly)
    return (
      <Text as="span" {...style} _hover={{}}>
        {children}
      </Text>
    );
  return (
    <PlainLink to={to} {...style}>
      {children}
    </PlainLink>
  );
}
