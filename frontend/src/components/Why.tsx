import { Box, chakra, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Derivation } from "../api/types";
import { SideButton } from "./Button";

const Drawer = chakra("dialog", {
  base: {
    m: "0",
    ml: "auto",
    h: "100dvh",
    maxH: "100dvh",
    w: "min(26rem, 100vw)",
    maxW: "100vw",
    p: "6",
    bg: "card",
    color: "ink",
    border: "none",
    borderLeft: "1px solid",
    borderColor: "hairline",
    overflowY: "auto",
  },
});
const Opener = chakra("button", {
  base: {
    display: "inline-flex",
    alignItems: "center",
    minH: "24px",
    minW: "44px",
    color: "rope",
    fontSize: "note",
    fontWeight: "600",
    textDecoration: "underline",
    textUnderlineOffset: "3px",
    cursor: "pointer",
  },
});

interface WhyProps {
  about: string;
  working: Derivation | null | undefined;
  /** What else is said of it: other schools. */
  notes?: readonly string[];
}

/** Opens the working behind a number: the equation in words, what went in, and the source. */
export function Why({ about, working, notes = [] }: WhyProps) {
  const [open, setOpen] = useState(false);
  if (!working) return null;
  return (
    <>
      <Opener type="button" data-noprint aria-label={`Why: ${about}`} onClick={() => setOpen(true)}>
        why
      </Opener>
      {open && <Open about={about} working={working} notes={notes} onClose={() => setOpen(false)} />}
    </>
  );
}

interface OpenProps {
  about: string;
  working: Derivation;
  notes: readonly string[];
  onClose: () => void;
}

function Open({ about, working, notes, onClose }: OpenProps) {
  return (
    <Drawer
      ref={(drawer: HTMLDialogElement | null) => {
        if (drawer !== null && !drawer.open) drawer.showModal();
      }}
      aria-label={`Why: ${about}`}
      onClose={onClose}
    >
      <Text as="h2" fontSize="title" fontWeight="700" mb="3" lineHeight="1.25">
        {about}
      </Text>
      <Text mb="4">{working.equation}</Text>
      {notes.map((note) => (
        <Text key={note} mb="4">
          Other schools: {note}.
        </Text>
      ))}
      <Box as="dl" mb="5">
        {working.inputs.map((input) => (
          <Box
            key={input.name}
            display="flex"
            justifyContent="space-between"
            gap="4"
            py="1.5"
            borderTop="1px solid"
            borderColor="hairline"
          >
            <Text as="dt" color="soft">
              {input.name}
            </Text>
            <Text as="dd" m="0" fontWeight="600" textAlign="right">
              {input.value}
            </Text>
          </Box>
        ))}
      </Box>
      <Text as="h3" fontWeight="700" mb="1">
        Where it comes from
      </Text>
      <Box as="ul" pl="5" listStyleType="disc" mb="5" fontSize="note">
        {working.origins.map((origin) => (
          <li key={origin.reference}>
            {origin.reference} ({origin.note ? `${origin.kind}; ${origin.note}` : origin.kind})
          </li>
        ))}
      </Box>
      <SideButton onClick={(event) => event.currentTarget.closest("dialog")?.close()}>Close</SideButton>
    </Drawer>
  );
}
