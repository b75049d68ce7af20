import { Box, chakra, Flex, Grid, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { NavLink, useLocation } from "react-router";
import { Icon } from "../components/icons";
import { openFinder } from "../lib/find";
import { useMe } from "../lib/me";
import { useOncePainted } from "../lib/useOncePainted";
import { Choosers } from "./Choosers";
import { houseStations, poolOf, poolStations, type Station, UNDER_THE_THUMB } from "./stations";

const RailLink = chakra(NavLink, {
  base: {
    display: "flex",
    alignItems: "center",
    gap: "3.5",
    minH: { base: "44px", lg: "41px" },
    px: "3",
    borderRadius: "8px",
    color: "ink",
    _hover: { bg: "card" },
    "&.active": { color: "accent", fontWeight: "700", bg: "card" },
  },
});

const BarLink = chakra(NavLink, {
  base: {
    flex: "1",
    display: "flex",
    flexDirection: "column",
    alignItems: "center",
    justifyContent: "center",
    gap: "0.5",
    minH: "64px",
    color: "ink",
    fontSize: "note",
    fontWeight: "600",
    borderTop: "3px solid transparent",
    "&.active": { color: "accent", borderColor: "accent", fontWeight: "700" },
  },
});

/** Beside a pool's own stations; the others are found by "Find", and on the page of pools. */
const BESIDE_A_POOL = 3;

/** The stations at the left of a desk: this pool's, then the house's; emergency and who one is at the foot. */
export function Rail() {
  const painted = useOncePainted(); // what one came for is read first; the rail keeps its place meanwhile
  return (
    <Flex
      as="nav"
      aria-label="Main"
      display={{ base: "none", lg: "flex" }}
      direction="column"
      position="sticky"
      top="0"
      h="100dvh"
      w="12.5rem"
      flexShrink="0"
      px="2"
      py="4"
      borderRight="1px solid"
      borderColor="hairline"
      data-noprint
    >
      <Text fontWeight="750" fontSize="1.375rem" px="3" mb="2">
        Kumpan
      </Text>
      {painted && <RailLinks />}
    </Flex>
  );
}

function RailLinks() {
  const { pathname } = useLocation();
  const me = useMe();
  const pool = poolOf(pathname);
  const house = houseStations(me?.role);
  return (
    <>
      <Box flex="1" minH="0" overflowY="auto">
        {pool !== undefined && <Links stations={poolStations(pool, me?.role)} />}
        {pool !== undefined && <Box borderTop="1px solid" borderColor="hairline" my="2" />}
        <Links stations={pool === undefined ? house : house.slice(0, BESIDE_A_POOL)} />
        {me !== null && me.role !== "guest" && <FindButton />}
      </Box>
      <RailLink to="/help">
        <Icon name="help" /> Help
      </RailLink>
      <RailLink to="/emergency" css={{ color: "accent", fontWeight: "700" }}>
        <Icon name="emergency" /> Emergency
      </RailLink>
      <AccountMenu />
    </>
  );
}

function Links({ stations }: { stations: readonly Station[] }) {
  return stations.map(({ to, label, icon, end }) => (
    <RailLink key={to} to={to} end={end ?? false}>
      <Icon name={icon} /> {label}
    </RailLink>
  ));
}

function FindButton() {
  return (
    <chakra.button
      type="button"
      onClick={openFinder}
      display="flex"
      alignItems="center"
      gap="3.5"
      minH="44px"
      px="3"
      borderRadius="8px"
      cursor="pointer"
      _hover={{ bg: "card" }}
      aria-keyshortcuts="/ Control+K"
    >
      <Icon name="find" /> Find
      <Text as="span" color="soft" fontSize="note" ml="auto">
        /
      </Text>
    </chakra.button>
  );
}

/** Who one is, units and light: one menu. */
function AccountMenu() {
  const me = useMe();
  const [open, setOpen] = useState(false);
  return (
    <chakra.details mt="1" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <chakra.summary
        display="flex"
        alignItems="center"
        gap="3.5"
        minH="44px"
        px="3"
        cursor="pointer"
        borderRadius="8px"
        _hover={{ bg: "card" }}
        aria-label="Settings"
      >
        <Icon name="account" />
        <Text as="span" truncate>
          {me === null || me.role === "guest" ? "Units and light" : me.name}
        </Text>
      </chakra.summary>
      <Box px="3" py="2">
        {open && <Choosers />}
      </Box>
    </chakra.details>
  );
}

/** The four things done at the poolside under the thumb, and "More". */
export function ThumbBar() {
  const { pathname } = useLocation();
  const me = useMe();
  const known = me !== null;
  const dialog = useRef<HTMLDialogElement>(null);
  const [open, setOpen] = useState(false); // what nobody sees is not drawn with the first page
  const pool = poolOf(pathname);
  const here = pool === undefined ? houseStations(me?.role) : poolStations(pool, me?.role);
  const shown = here.slice(0, UNDER_THE_THUMB);
  const rest = here.slice(UNDER_THE_THUMB);
  const others = pool === undefined ? [] : houseStations(me?.role);
  useEffect(() => {
    if (pathname) setOpen(false); // gone on to another page
  }, [pathname]);
  useEffect(() => {
    if (open) dialog.current?.showModal();
    else dialog.current?.close();
  }, [open]);
  if (!known) return null;
  return (
    <>
      <Flex
        as="nav"
        aria-label={pool === undefined ? "Main, below" : "Stations of this pool"}
        display={{ base: "flex", lg: "none" }}
        bg="card"
        borderTop="1px solid"
        borderColor="hairline"
        pb="env(safe-area-inset-bottom)"
        data-noprint
      >
        {shown.map(({ to, label, icon, end }) => (
          <BarLink key={to} to={to} end={end ?? false}>
            <Icon name={icon} />
            {label}
          </BarLink>
        ))}
        <chakra.button
          type="button"
          flex="1"
          display="flex"
          flexDirection="column"
          alignItems="center"
          justifyContent="center"
          gap="0.5"
          minH="64px"
          fontSize="note"
          fontWeight="600"
          borderTop="3px solid transparent"
          cursor="pointer"
          aria-haspopup="dialog"
          onClick={() => setOpen(true)}
        >
          <Icon name="more" />
          More
        </chakra.button>
      </Flex>
      <Sheet ref={dialog} aria-label="More" onClose={() => setOpen(false)}>
        {open && <More rest={rest} others={others} close={() => setOpen(false)} />}
      </Sheet>
    </>
  );
}

interface MoreProps {
  rest: readonly Station[];
  others: readonly Station[];
  close: () => void;
}

function More({ rest, others, close }: MoreProps) {
  return (
    <>
      <Group stations={rest} />
      {others.length > 0 && <Group stations={others} title="Besides this pool" />}
      <Group
        stations={[
          { to: "/help", label: "Help", icon: "help" },
          { to: "/emergency", label: "Emergency", icon: "emergency" },
        ]}
      />
      <Box mt="3" pt="3" borderTop="1px solid" borderColor="hairline">
        <Choosers />
      </Box>
      <chakra.button
        type="button"
        mt="3"
        w="100%"
        minH="48px"
        border="1.5px solid"
        borderColor="control"
        borderRadius="10px"
        fontWeight="600"
        cursor="pointer"
        onClick={close}
      >
        Close
      </chakra.button>
    </>
  );
}

const Sheet = chakra("dialog", {
  base: {
    m: "0 auto",
    mt: "auto",
    w: "100%",
    maxW: "40rem",
    maxH: "85dvh",
    overflowY: "auto",
    p: "4",
    bg: "card",
    color: "ink",
    borderTopRadius: "14px",
    border: "1px solid",
    borderColor: "hairline",
    _backdrop: { bg: "shade" },
  },
});

function Group({ stations, title }: { stations: readonly Station[]; title?: string }) {
  if (stations.length === 0) return null;
  return (
    <Box mb="2">
      {title !== undefined && (
        <Text color="soft" fontSize="note" px="3" mt="2">
          {title}
        </Text>
      )}
      <Grid templateColumns="1fr 1fr" gap="1">
        <Links stations={stations} />
      </Grid>
    </Box>
  );
}
