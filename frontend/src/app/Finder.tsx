import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, useDeferredValue, useEffect, useId, useRef, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { poolPagesQuery } from "../api/poolPages";
import { maintenanceQuery, poolQuery, todayQuery } from "../api/queries";
import { Icon, type IconName } from "../components/icons";
import { FIND } from "../lib/find";
import { lastPoolStore } from "../lib/lastPool";
import { useMe } from "../lib/me";
import { useStore } from "../lib/store";
import { unitsStore } from "../lib/units";
import { MODE_NAMES, MODES, modeStore } from "../theme/mode";
import { houseStations, poolOf, poolStations } from "./stations";

const MOST = 12;

interface Found {
  key: string;
  label: string;
  about: string;
  icon: IconName;
  go: () => void;
}

const Dialog = chakra("dialog", {
  base: {
    m: "8dvh auto auto",
    w: "min(38rem, calc(100% - 2rem))",
    p: "0",
    bg: "card",
    color: "ink",
    borderRadius: "12px",
    border: "1px solid",
    borderColor: "hairline",
    _backdrop: { bg: "shade" },
  },
});

function typesHere(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.matches("input, textarea, select") || target.isContentEditable)
  );
}

/** Any pool, task, station or setting by a few letters. */
export function Finder() {
  const dialog = useRef<HTMLDialogElement>(null);
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const show = () => {
      if (dialog.current?.open) return;
      dialog.current?.showModal();
      setOpen(true);
    };
    const onKey = (event: KeyboardEvent | globalThis.KeyboardEvent) => {
      const command = (event.ctrlKey || event.metaKey) && event.key === "k";
      const slash = event.key === "/" && !event.ctrlKey && !event.metaKey && !typesHere(event.target);
      if (!command && !slash) return;
      event.preventDefault();
      show();
    };
    window.addEventListener(FIND, show);
    window.addEventListener("keydown", onKey);
    return () => {
      window.removeEventListener(FIND, show);
      window.removeEventListener("keydown", onKey);
    };
  }, []);
  return (
    <Dialog ref={dialog} aria-label="Find" onClose={() => setOpen(false)} data-noprint>
      {open && <Search close={() => dialog.current?.close()} />}
    </Dialog>
  );
}

function Search({ close }: { close: () => void }) {
  const [words, setWords] = useState("");
  const [at, setAt] = useState(0);
  const list = useId();
  const found = useFound(words).slice(0, MOST);
  const chosen = Math.min(at, found.length - 1);

  function onKey(event: KeyboardEvent) {
    if (event.key === "ArrowDown") setAt(Math.min(chosen + 1, found.length - 1));
    else if (event.key === "ArrowUp") setAt(Math.max(chosen - 1, 0));
    else if (event.key === "Enter" && found[chosen] !== undefined) take(found[chosen]);
    else return;
    event.preventDefault();
  }
  function take(one: Found) {
    close();
    one.go();
  }
  return (
    <>
      <chakra.input
        type="text"
        role="combobox"
        aria-label="Find a pool, a task, a page"
        aria-expanded
        aria-controls={list}
        aria-activedescendant={found[chosen] === undefined ? undefined : `${list}-${chosen}`}
        placeholder="A pool, a task, a page"
        autoFocus
        autoComplete="off"
        w="100%"
        minH="56px"
        px="4"
        fontSize="lead"
        bg="card"
        borderBottom="1px solid"
        borderColor="hairline"
        _focusVisible={{ outlineOffset: "-3px", borderTopRadius: "12px" }}
        value={words}
        onChange={(event) => {
          setWords(event.target.value);
          setAt(0);
        }}
        onKeyDown={onKey}
      />
      <Box id={list} role="listbox" aria-label="Found" maxH="60dvh" overflowY="auto" p="2">
        {found.map((one, index) => (
          <Flex
            key={one.key}
            id={`${list}-${index}`}
            role="option"
            aria-selected={index === chosen}
            gap="3"
            align="center"
            minH="44px"
            px="3"
            py="1"
            borderRadius="8px"
            cursor="pointer"
            bg={index === chosen ? "band" : undefined}
            onClick={() => take(one)}
          >
            <Icon name={one.icon} />
            <Box minW="0">
              <Text fontWeight="600">{one.label}</Text>
              {one.about !== "" && (
                <Text fontSize="note" color="soft" truncate>
                  {one.about}
                </Text>
              )}
            </Box>
          </Flex>
        ))}
        {found.length === 0 && (
          <Text color="soft" p="3" role="status">
            Nothing is called so.
          </Text>
        )}
      </Box>
    </>
  );
}

/**
 * Pages and settings by their names, pools as the server finds them, and what is due and every procedure of this pool,
 * or of the one that was open last.
 */
function useFound(words: string): Found[] {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const me = useMe();
  const units = useStore(unitsStore);
  const base = poolOf(pathname);
  const last = useStore(lastPoolStore);
  const poolId = base?.slice("/pools/".length) ?? (last === "" ? undefined : last);
  const at = { enabled: poolId !== undefined };
  const wanted = words.trim().toLowerCase();
  const pools = useInfiniteQuery(poolPagesQuery(useDeferredValue(words.trim()), "attention"));
  const due = useQuery({ ...todayQuery(poolId ?? ""), ...at });
  const care = useQuery({ ...maintenanceQuery(poolId ?? ""), ...at });
  const head = useQuery({ ...poolQuery(poolId ?? ""), ...at });
  const where = base === undefined ? (head.data?.settings.name ?? "the last pool") : "this pool";
  const go = (to: string) => () => void navigate(to);

  const here = base === undefined ? [] : poolStations(base, me?.role);
  const pages: Found[] = [
    ...here.map(({ to, label, icon }) => ({ key: to, label, about: "This pool", icon, go: go(to) })),
    ...houseStations(me?.role).map(({ to, label, icon }) => ({
      key: to,
      label,
      about: "",
      icon,
      go: go(to),
    })),
    { key: "/help", label: "Help", about: "Guide by task", icon: "help", go: go("/help") },
    { key: "/emergency", label: "Emergency", about: "", icon: "emergency", go: go("/emergency") },
    {
      key: "/account",
      label: "Account",
      about: "Messages, password, devices",
      icon: "account",
      go: go("/account"),
    },
  ];
  if (base !== undefined)
    pages.push(
      { key: "e", label: "Equipment", about: "This pool", icon: "pump", go: go(`${base}/care/equipment`) },
      {
        key: "w",
        label: "What is it in the water?",
        about: "This pool",
        icon: "find",
        go: go(`${base}/what-is-it`),
      },
    );
  const settings: Found[] = [
    {
      key: "units",
      label: units === "us" ? "Metric units" : "US units",
      about: "Setting",
      icon: "label",
      go: () => unitsStore.set(units === "us" ? "metric" : "us"),
    },
    ...MODES.map((mode) => ({
      key: mode,
      label: MODE_NAMES[mode],
      about: "Light of the screen",
      icon: "label" as const,
      go: () => modeStore.set(mode),
    })),
  ];
  const tasks: Found[] = (due.data?.items ?? []).map((item) => ({
    key: `task ${item.task}`,
    label: item.title,
    about: `Due at ${where}`,
    icon: "care",
    go: go(`/pools/${poolId}/care${item.procedure === null ? "" : `/do/${item.procedure}`}`),
  }));
  const procedures: Found[] = (care.data?.procedures ?? [])
    .filter(({ title }) => tasks.every(({ label }) => label !== title))
    .map(({ key, title }) => ({
      key: `procedure ${key}`,
      label: title,
      about: `Step by step, ${where}`,
      icon: "care",
      go: go(`/pools/${poolId}/care/do/${key}`),
    }));
  const named = ({ label, about }: Found) => `${label} ${about}`.toLowerCase().includes(wanted);
  const seen = (pools.data?.pages ?? []).flatMap((page) => page.pools);
  const heads: Found[] = seen.map(({ id, settings: { name }, next }) => ({
    key: id,
    label: name,
    about: next.text,
    icon: "pools",
    go: go(`/pools/${id}`),
  }));
  if (wanted === "") return [...heads.slice(0, 5), ...pages];
  // A page that is called so is meant before a task that has the word in it.
  const begins = ({ label }: Found) => label.toLowerCase().startsWith(wanted);
  const rest = [...tasks, ...pages, ...procedures, ...settings].filter(named);
  return [...heads, ...rest.filter(begins), ...rest.filter((one) => !begins(one))];
}
