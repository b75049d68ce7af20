import { Box, chakra, Flex } from "@chakra-ui/react";
import { Outlet } from "react-router";
import { NoticeBar } from "../components/notice";
import { TextLink } from "../components/TextLink";
import { Choosers } from "./Choosers";
import { OutboxBar } from "./OutboxBar";
import { Shortcuts } from "./Shortcuts";

export function Shell() {
  return (
    <Box minH="100dvh">
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
        gap={{ base: "3", md: "6" }}
        align="center"
        borderBottom="1px solid"
        borderColor="hairline"
        flexWrap="wrap"
      >
        <chakra.span fontWeight="750" fontSize="lead">
          Kumpan
        </chakra.span>
        <Flex as="nav" aria-label="Main" gap={{ base: "3", md: "5" }} flex="1" minW="0">
          <TextLink to="/" end>
            Pools
          </TextLink>
          <TextLink to="/shelf">Shelf</TextLink>
          <TextLink to="/emergency" color="accent" fontWeight="650">
            Emergency
          </TextLink>
        </Flex>
        <chakra.details display={{ base: "block", lg: "none" }} css={{ "&[open]": { flexBasis: "100%" } }}>
          <chakra.summary minH="44px" display="flex" alignItems="center" cursor="pointer" fontWeight="600">
            Settings
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
        maxW="80rem"
        mx="auto"
        px={{ base: "4", md: "7" }}
        pt={{ base: "4", md: "5" }}
        pb="20"
      >
        <Outlet />
      </Box>
      <NoticeBar />
    </Box>
  );
}
