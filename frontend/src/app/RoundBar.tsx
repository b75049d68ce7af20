import { Box, Flex, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { Trouble } from "../api/client";
import { postOrKeep, SAVED } from "../api/outbox";
import { MainButton, SideButton } from "../components/Button";
import { notify } from "../components/notice";
import { TextField } from "../components/TextField";
import { personId } from "../lib/person";
import { type ActiveStop, activeRoundStore, endRound, stopsOf } from "../lib/round";
import { useStore } from "../lib/store";

/** While a round is driven: which stop this is, and the way to the next. */
export function RoundBar() {
  const stops = stopsOf(useStore(activeRoundStore));
  const { pathname } = useLocation();
  const at = stops.findIndex(({ id }) => pathname.startsWith(`/pools/${id}`));
  const stop = stops[at];
  if (stop === undefined || pathname.endsWith("/notice")) return null;
  return <Bar key={stop.id} stop={stop} position={at + 1} of={stops.length} next={stops[at + 1]} />;
}

interface BarProps {
  stop: ActiveStop;
  position: number;
  of: number;
  next: ActiveStop | undefined;
}

function Bar({ stop, position, of, next }: BarProps) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [busy, setBusy] = useState(false);
  const [note, setNote] = useState("");
  const [trade, setTrade] = useState("");
  const [back, setBack] = useState(false);

  async function finish() {
    setBusy(true);
    try {
      const body = { id: crypto.randomUUID(), person_id: personId(), note, needs_return: back, trade };
      const kept = await postOrKeep(`/api/v1/pools/${stop.id}/visits`, body, `Visit at ${stop.name}`);
      notify(
        kept === SAVED ? "Kept on this device; it is sent when the server answers." : `${stop.name}: done.`,
      );
      await queries.invalidateQueries({ queryKey: ["round"] });
      if (next === undefined) {
        endRound();
        navigate("/round");
      } else navigate(`/pools/${next.id}/slip`);
    } catch (error) {
      notify(error instanceof Trouble ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  }

  return (
    <Box
      as="aside"
      aria-label="Round"
      bg="card"
      borderTop="2px solid"
      borderColor="ink"
      px={{ base: "4", md: "7" }}
      py="2"
      data-noprint
    >
      {open && (
        <Box maxW="40rem" py="2">
          <TextField label="Note to the owner" value={note} onText={setNote} />
          <Box mt="2">
            <TextField label="For a licensed trade" value={trade} onText={setTrade} />
          </Box>
          <Flex as="label" align="center" gap="3" minH="44px" mt="1">
            <input type="checkbox" checked={back} onChange={(event) => setBack(event.target.checked)} />
            This pool needs a return
          </Flex>
        </Box>
      )}
      <Flex gap="3" align="center" wrap="wrap">
        <Text fontWeight="600" flex="1" minW="8rem">
          Stop {position} of {of}
        </Text>
        <SideButton aria-expanded={open} onClick={() => setOpen(!open)}>
          Note
        </SideButton>
        <SideButton onClick={endRound}>Leave</SideButton>
        <MainButton minH="48px" px="4" disabled={busy} onClick={() => void finish()}>
          {next === undefined ? "Done, round ends" : `Done, on to ${next.name}`}
        </MainButton>
      </Flex>
    </Box>
  );
}
