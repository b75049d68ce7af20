import { Box, chakra, Flex } from "@chakra-ui/react";
import { Outlet, ScrollRestoration } from "react-router";
import { NoticeBar } from "../components/notice";
import { TextLink } from "../components/TextLink";
import { useMe } from "../lib/me";
import { Choosers } from "./Choosers";
import { Gate } from "./Gate";
import { OutboxBar } from "./OutboxBar";
import { RoundBar } from "./RoundBar";
import { Shortcuts } from "./Shortcuts";
import { VisitBar } from "./VisitBar";

export function Shell() {
  const me = useMe();
  return (
    <Flex minH={{ base: "100dvh", _print: "auto" }} direction="column" _print={{ display: "block" }}>
      <chakra.a
        href="#main"
        position="absolute"
        left="-999rem"
        _focus={{ left: "4", top: "2", bg: "card", p: "2", zIndex: 10 }}
      >
        To the content
      </chakra.a>
      <Flex
        as="header"
        data-noprint
        px={{ base: "4", md: "7" }}
        py="2"
        gap={{ base: "2.5", md: "6" }}
        align="center"
        borderBottom="1px solid"
        borderColor="hairline"
        flexWrap="wrap"
      >
        <chakra.span fontWeight="750" fontSize="lead" display={{ base: "none", sm: "inline" }}>
          Kumpan
        </chakra.span>
        <Flex as="nav" aria-label="Main" gap={{ base: "2.5", md: "5" }} flex="1" minW="0">
          {me !== null && me.role !== "guest" && (
            <TextLink to="/" end>
              Pools
            </TextLink>
          )}
          {(me?.role === "office" || me?.role === "technician") && <TextLink to="/round">Round</TextLink>}
          {me !== null && me.role !== "guest" && <TextLink to="/shelf">Shelf</TextLink>}
          <TextLink to="/emergency" color="accent" fontWeight="650">
            Emergency
          </TextLink>
        </Flex>
        <chakra.details display={{ base: "block", lg: "none" }} css={{ "&[open]": { flexBasis: "100%" } }}>
          <chakra.summary
            w="44px"
            h="44px"
            display="flex"
            alignItems="center"
            justifyContent="center"
            cursor="pointer"
            border="1.5px solid"
            borderColor="control"
            borderRadius="10px"
            aria-label="Settings"
          >
            <Sliders />
          </chakra.summary>
          <Flex pb="2">
            <Choosers />
          </Flex>
        </chakra.details>
        <Flex display={{ base: "none", lg: "flex" }} gap="2">
          <Choosers />
          <Shortcuts />
        </Flex>
      </Flex>
      <OutboxBar />
      <Box
        as="main"
        id="main"
        flex="1"
        w="100%"
        maxW="80rem"
        mx="auto"
        px={{ base: "4", md: "7" }}
        pt={{ base: "4", md: "5" }}
        pb={{ base: "20", _print: "0" }}
      >
        <Gate>
          <Outlet />
        </Gate>
        <ScrollRestoration />
      </Box>
      <Box position="sticky" bottom="0" zIndex="5" data-noprint>
        <NoticeBar />
        <VisitBar />
        <RoundBar />
      </Box>
    </Flex>
  );
}

/** Three lines with a knob each: who, units, light. */
function Sliders() {
  return (
    <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true" stroke="currentColor" strokeWidth="2">
      <path d="M2 5h18M2 11h18M2 17h18" />
      <g fill="currentColor" stroke="none">
        <circle cx="14" cy="5" r="3" />
        <circle cx="7" cy="11" r="3" />
        <circle cx="16" cy="17" r="3" />
      </g>
    </svg>
  );
}
