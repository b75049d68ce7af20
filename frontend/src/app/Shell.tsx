import { Box, chakra, Flex } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import { Outlet, ScrollRestoration, useLocation } from "react-router";
import { NoticeBar, turnThePage } from "../components/notice";
import { TopTools } from "../components/TopTools";
import { useOncePainted } from "../lib/useOncePainted";
import { useWide } from "../lib/useWide";
import { Finder } from "./Finder";
import { Foot } from "./Foot";
import { Rail, ThumbBar } from "./Frame";
import { Gate } from "./Gate";
import { OutboxBar } from "./OutboxBar";
import { RoundBar } from "./RoundBar";
import { Shortcuts } from "./Shortcuts";
import { poolOf } from "./stations";
import { VisitBar } from "./VisitBar";

/** The frame: a rail at the left of a desk, a bar under the thumb of a phone, the page between. */
export function Shell() {
  const { pathname } = useLocation();
  const wide = useWide();
  const painted = useOncePainted();
  const main = useOnward(pathname);
  return (
    <Flex _print={{ display: "block" }}>
      <chakra.a
        href="#main"
        position="absolute"
        left="-999rem"
        _focus={{ left: "4", top: "2", bg: "card", p: "2", zIndex: 10 }}
      >
        To the content
      </chakra.a>
      {wide && <Rail />}
      <Flex flex="1" minW="0" minH={{ base: "100dvh", _print: "auto" }} direction="column">
        {poolOf(pathname) === undefined && (
          <Flex
            as="header"
            display={{ base: "flex", lg: "none" }}
            justify="space-between"
            align="center"
            pl="4"
            pr="1"
            borderBottom="1px solid"
            borderColor="hairline"
            data-noprint
          >
            <chakra.span fontWeight="750" fontSize="lead">
              Kumpan
            </chakra.span>
            <TopTools />
          </Flex>
        )}
        {painted && <OutboxBar />}
        <Box
          as="main"
          id="main"
          ref={main}
          tabIndex={-1}
          outline="none"
          flex="1"
          w="100%"
          maxW="84rem"
          px={{ base: "4", md: "6" }}
          pt={{ base: "3", md: "5" }}
          pb={{ base: "8", _print: "0" }}
        >
          <Gate>
            {/* Another pool is another page: nothing picked, typed or asked at one may stand under the other. */}
            <Outlet key={poolOf(pathname)} />
          </Gate>
          <ScrollRestoration />
        </Box>
        <Foot>
          {painted && (
            <>
              <NoticeBar />
              <VisitBar />
              <RoundBar />
            </>
          )}
          {!wide && <ThumbBar />}
        </Foot>
      </Flex>
      {painted && (
        <>
          <Finder />
          <Shortcuts />
        </>
      )}
    </Flex>
  );
}

/** On another page keys go on at its content where what had the focus is gone, and old notices are put away. */
function useOnward(pathname: string) {
  const main = useRef<HTMLDivElement>(null);
  const before = useRef(pathname);
  useEffect(() => {
    if (before.current === pathname) return;
    before.current = pathname;
    turnThePage();
    if (document.activeElement === document.body) main.current?.focus({ preventScroll: true });
  }, [pathname]);
  return main;
}
